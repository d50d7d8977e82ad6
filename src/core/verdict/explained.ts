import type { Fault } from './fault';
import type { FaultKind } from './faults';

/** Faults that are heard because of another one at the same place, and are not told besides it. */
interface Consequences {
  /** At the same note, and on the way into it. */
  readonly here: readonly FaultKind[];
  /** On the way to the next note. */
  readonly next: readonly FaultKind[];
}

const SLUR: readonly FaultKind[] = ['hole', 'bump', 'narrow-leap', 'slow-slur', 'overshoot'];
const INTERVAL: readonly FaultKind[] = ['wide-interval', 'narrow-interval'];
const PITCH: readonly FaultKind[] = ['steadily-low', 'steadily-high', 'impure', 'anchor-moved'];
const TONE: readonly FaultKind[] = [
  'unsteady',
  'sinking',
  'rising',
  'fading-hold',
  'short-purity',
  'vibrato',
  'thin',
  'airy',
  'unlike',
  'uneven-line',
  'end-low',
  'end-high',
  'tremor',
];
const TIME: readonly FaultKind[] = ['late', 'early'];
/** Where another sound came, whatever else was measured of the note is that sound's. */
const ANOTHER_SOUND: Consequences = {
  here: [...SLUR, ...INTERVAL, ...PITCH, ...TONE, ...TIME],
  next: [...SLUR, ...INTERVAL],
};

const EXPLAINS: Readonly<Partial<Record<FaultKind, Consequences>>> = {
  'break-up': ANOTHER_SOUND,
  'break-down': ANOTHER_SOUND,
  squeak: ANOTHER_SOUND,
  'wrong-note': ANOTHER_SOUND,
  slipped: ANOTHER_SOUND,
  missed: ANOTHER_SOUND,
  'mode-missed': ANOTHER_SOUND,
  undertone: { here: [...TONE, ...PITCH, ...INTERVAL], next: [] },
  'late-speech': {
    here: [...SLUR, ...TIME, 'unsteady', 'sinking', 'rising', 'fading-hold', 'unlike', 'airy'],
    next: [],
  },
  hole: { here: ['bump', 'narrow-leap', 'slow-slur', 'overshoot'], next: [] },
  bump: { here: ['overshoot', 'slow-slur'], next: [] },
  'anchor-moved': { here: ['steadily-low', 'steadily-high', ...INTERVAL], next: INTERVAL },
  'steadily-low': { here: INTERVAL, next: INTERVAL },
  'steadily-high': { here: INTERVAL, next: INTERVAL },
  vibrato: { here: ['unsteady', 'short-purity', 'sinking', 'rising', 'fading-hold'], next: [] },
  'fading-hold': { here: ['short-purity', 'airy'], next: ['bump'] },
  'flat-when-fading': { here: ['steadily-low', 'steadily-high', 'end-low', 'end-high'], next: [] },
  'sharp-when-fading': { here: ['steadily-low', 'steadily-high', 'end-low', 'end-high'], next: [] },
  rush: { here: ['uneven'], next: [] },
  drag: { here: ['uneven'], next: [] },
  sinking: { here: ['short-purity', 'end-low'], next: [] },
  rising: { here: ['short-purity', 'end-high'], next: [] },
  stopped: { here: [...TONE, 'hole', 'cut-short'], next: [] },
  'wrong-way': {
    here: ['uneven-line', 'narrow-window', 'early-top', 'late-top', 'end-low', 'end-high'],
    next: [],
  },
  'early-top': { here: ['uneven-line'], next: [] },
  'late-top': { here: ['uneven-line'], next: [] },
  // Of a note with one fault at its end, or at its beginning, the whole is told as if it shook.
  'end-low': { here: ['unsteady', 'short-purity'], next: [] },
  'end-high': { here: ['unsteady', 'short-purity'], next: [] },
  scooped: { here: ['unsteady', 'short-purity', 'late'], next: [] },
  // Noise beside the tone moves the pitch that is measured, not the player's.
  airy: { here: ['unsteady', 'short-purity'], next: [] },
  unsteady: {
    here: ['short-purity', 'sinking', 'rising', 'steadily-low', 'steadily-high', 'slow-slur', 'overshoot'],
    next: ['slow-slur', 'overshoot'],
  },
};

/** Whether after such a fault nothing is said of the slur to the next note: another sound was left than the one that was asked. */
export const spoilsNext = (kind: FaultKind): boolean => EXPLAINS[kind] === ANOTHER_SOUND;

/** Faults without those that others at their place account for: one thing is told once, as what it was. */
export function withoutConsequences(faults: readonly Fault[]): Fault[] {
  const explained = (fault: Fault) =>
    faults.some((cause) => {
      const { here, next } = EXPLAINS[cause.kind] ?? { here: [], next: [] };
      if (cause === fault) return false;
      if (cause.group === fault.group) return here.includes(fault.kind);
      if (cause.group === null || fault.group === null) return false;
      // A note that a wrong one stood in for, or ran into, is not missing besides.
      if (fault.kind === 'missed')
        return cause.kind === 'wrong-note' && Math.abs(cause.group - fault.group) === 1;
      return cause.group === fault.group - 1 && fault.atSlur && next.includes(fault.kind);
    });
  return faults.filter((fault) => !explained(fault));
}
