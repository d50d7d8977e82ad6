import type { CUES, EventKind } from '@/core/music';

type Cue = (typeof CUES)[number];

/** One kind of fault: what it is called, how much it matters, what to attend to meanwhile. Its causes are the coach's. */
interface FaultAbout {
  /** Beside its mark on the strip. */
  readonly word: string;
  /** What matters beyond its size: a note that cracked before a note that was a little low. */
  readonly gravity: number;
  readonly cue: Cue | null;
  /** Events of this kind, to which side: `up` and `down` are another mode above and below. */
  readonly events?: readonly (readonly [kind: EventKind, way: 'up' | 'down' | 'any'])[];
  /**
   * The sentence of one, and of many without their places. `place` is a note, or `C4 to D4` at a slur; empty for the take as
   * a whole. `by` is its size in words, empty where it has none.
   */
  readonly one: (place: string, by: string) => string;
  readonly many: (count: number, slurs: boolean) => string;
}

const places = (count: number, slurs: boolean) => `${count} ${slurs ? 'slurs' : 'notes'}`;

export const FAULTS = {
  'break-up': row(
    'cracked, a higher mode',
    2,
    null,
    (place, by) => `${place} cracked into a higher mode${by && ` after ${by}`}`,
    (n, slurs) => `${places(n, slurs)} cracked into a higher mode`,
    [
      ['break', 'up'],
      ['blip', 'up'],
    ],
  ),
  'break-down': row(
    'cracked, a lower mode',
    2,
    'air before the note',
    (place, by) => `${place} cracked into a lower mode${by && ` after ${by}`}`,
    (n, slurs) => `${places(n, slurs)} cracked into a lower mode`,
    [
      ['break', 'down'],
      ['blip', 'down'],
    ],
  ),
  squeak: row(
    'squeak',
    2,
    'shoulders loose',
    (place, by) => `A squeak in ${place}${by && ` after ${by}`}`,
    (n, slurs) => `Squeaks in ${places(n, slurs)}`,
    [['squeak', 'any']],
  ),
  undertone: row(
    'undertone',
    1.6,
    null,
    (place, by) => `An undertone growled below ${place}${by && ` after ${by}`}`,
    (n) => `Undertones growled below ${n} notes`,
    [['undertone', 'any']],
  ),
  hole: row(
    'hole',
    1.6,
    'breath from the belly',
    (place, by) => `A hole in the slur from ${place}${by && `, ${by} deep`}`,
    (n) => `Holes in ${n} slurs`,
    [['gap', 'any']],
  ),
  'late-speech': row(
    'spoke late',
    1.5,
    'air before the note',
    (place, by) => `${place} spoke late${by && `, after ${by} of air`}`,
    (n) => `${n} notes spoke late`,
    [['late-speech', 'any']],
  ),
  'wrong-note': row(
    'wrong note',
    1.3,
    null,
    (place) => `Another note came in place of ${place}`,
    (n) => `${n} notes came as other notes`,
  ),
  slipped: row(
    'another note within',
    1.5,
    null,
    (place, by) => `${place} slipped to another note${by && ` after ${by}`}`,
    (n) => `${n} notes slipped to others`,
    [['wrong-note', 'any']],
  ),
  missed: row(
    'not heard',
    1,
    null,
    (place) => `${place} was not heard`,
    (n) => `${n} notes were not heard`,
  ),
  stopped: row(
    'broke off',
    1.6,
    'breath from the belly',
    (place, by) => `${place} broke off${by && ` for ${by}`}`,
    (n) => `${n} notes broke off within`,
  ),
  'cut-short': row(
    'cut short',
    1.2,
    'breath from the belly',
    (place, by) => `${place} ended early${by && `, after ${by}`}`,
    (n) => `${n} notes ended early`,
  ),
  scooped: row(
    'scooped',
    1,
    'air before the note',
    (place, by) => `${place} began ${by || 'off its pitch'}`,
    (n) => `${n} notes began off their pitch`,
  ),
  'end-low': row(
    'end low',
    1.1,
    'breath from the belly',
    (place, by) => `The end of ${place} sank${by && `, by ${by}`}`,
    (n) => `The ends of ${n} notes sank`,
  ),
  'end-high': row(
    'end high',
    1,
    null,
    (place, by) => `The end of ${place} rose${by && `, by ${by}`}`,
    (n) => `The ends of ${n} notes rose`,
  ),
  tremor: row(
    'tremor',
    0.9,
    'breath from the belly',
    (place, by) => `The loudness of ${place} shook${by && `, ${by}`}`,
    (n) => `The loudness shook in ${n} notes`,
  ),
  bump: row(
    'bump',
    1.1,
    'little movement',
    (place, by) => `A push in the slur from ${place}${by && `, ${by}`}`,
    (n) => `Pushes in ${n} slurs`,
  ),
  'narrow-leap': row(
    'weaker after the leap',
    1,
    'throat loose',
    (place, by) => `The second note was weaker from ${place}${by && `, by ${by}`}`,
    (n) => `The second note was weaker in ${n} slurs`,
  ),
  'slow-slur': row(
    'slow slur',
    0.8,
    null,
    (place, by) => `The slur from ${place} was slow to settle${by && `, ${by}`}`,
    (n) => `${n} slurs were slow to settle`,
  ),
  overshoot: row(
    'went too far',
    0.7,
    'little movement',
    (place, by) => `The slur from ${place} went too far${by && `, by ${by}`}`,
    (n) => `${n} slurs went too far`,
  ),
  'wide-interval': row(
    'wide',
    1,
    'little movement',
    (place, by) => `${place} was ${by} wide`,
    (n) => `${n} intervals were wide`,
  ),
  'narrow-interval': row(
    'narrow',
    1,
    null,
    (place, by) => `${place} was ${by} narrow`,
    (n) => `${n} intervals were narrow`,
  ),
  'steadily-low': row(
    'low',
    1,
    null,
    (place, by) => (place ? `${place} was ${by} low` : `${by} low as a whole`),
    (n) => `${n} notes were low`,
  ),
  'steadily-high': row(
    'high',
    1,
    null,
    (place, by) => (place ? `${place} was ${by} high` : `${by} high as a whole`),
    (n) => `${n} notes were high`,
  ),
  impure: row(
    'impure',
    1.1,
    null,
    (place, by) => `The interval of ${place} beat ${by}`,
    (n) => `${n} intervals were impure`,
  ),
  'flat-when-fading': row(
    'flat when soft',
    1.2,
    'breath from the belly',
    (_place, by) => `Flat when soft, ${by}`,
    (n) => `Flat when soft in ${n} lines`,
  ),
  'sharp-when-fading': row(
    'sharp when soft',
    1.2,
    'throat loose',
    (_place, by) => `Sharp when soft, ${by}`,
    (n) => `Sharp when soft in ${n} lines`,
  ),
  'uneven-line': row(
    'uneven line',
    0.9,
    null,
    (place, by) => `The line of ${place} was uneven, by ${by}`,
    (n) => `${n} lines of the level were uneven`,
  ),
  'wrong-way': row(
    'the other way',
    1.4,
    null,
    (place, by) => `The level of ${place} went the other way${by && `, by ${by}`}`,
    (n) => `The level went the other way in ${n} lines`,
  ),
  'early-top': row(
    'top early',
    0.9,
    null,
    (place, by) => `The top of ${place} came early${by && `, by ${by}`}`,
    (n) => `The tops of ${n} swells came early`,
  ),
  'late-top': row(
    'top late',
    0.9,
    null,
    (place, by) => `The top of ${place} came late${by && `, by ${by}`}`,
    (n) => `The tops of ${n} swells came late`,
  ),
  'narrow-window': row(
    'narrow window',
    0.9,
    null,
    (place, by) => (place ? `${place} had ${by} between soft and loud` : `Only ${by} between soft and loud`),
    (n) => `${n} notes had little between soft and loud`,
  ),
  thin: row(
    'thin',
    0.9,
    'throat loose',
    (place) => `${place} grew thin`,
    (n) => `${n} notes grew thin`,
  ),
  airy: row(
    'airy',
    0.5,
    null,
    (place) => `Much air beside ${place}`,
    (n) => `Much air beside ${n} notes`,
  ),
  unlike: row(
    'unlike the reference',
    0.7,
    null,
    (place, by) => `${place} was unlike the reference, by ${by}`,
    (n) => `${n} notes were unlike the reference`,
  ),
  'anchor-moved': row(
    'anchor moved',
    1.1,
    'little movement',
    (place, by) => `${place} came back as another note${by && `, ${by} off`}`,
    (n) => `The anchor came back as another note ${n} times`,
  ),
  vibrato: row(
    'vibrato',
    0.9,
    'shoulders loose',
    (place, by) => `Vibrato in ${place}${by && `, ${by} either way`}, where none was asked for`,
    (n) => `Vibrato in ${n} notes where none was asked for`,
  ),
  unsteady: row(
    'unsteady',
    1,
    'breath from the belly',
    (place, by) => `The pitch of ${place} shook${by && `, ${by}`}`,
    (n) => `The pitch shook in ${n} notes`,
  ),
  sinking: row(
    'sinking',
    1,
    'breath from the belly',
    (place, by) => `${place} sank${by && `, ${by}`}`,
    (n) => `${n} notes sank while they were held`,
  ),
  rising: row(
    'rising',
    0.9,
    null,
    (place, by) => `${place} rose${by && `, ${by}`}`,
    (n) => `${n} notes rose while they were held`,
  ),
  'fading-hold': row(
    'fading',
    0.8,
    'breath from the belly',
    (place, by) => `${place} faded${by && `, ${by}`}`,
    (n) => `${n} notes faded while they were held`,
  ),
  'short-purity': row(
    'pure too shortly',
    0.8,
    'breath from the belly',
    (place, by) => `${place} stayed pure for ${by} only`,
    (n) => `${n} holds lost their purity early`,
  ),
  rush: row(
    'ahead',
    1,
    null,
    (_place, by) => `Ahead of the beat${by && `, ${by}`}`,
    (n) => `Ahead of the beat ${n} times`,
  ),
  drag: row(
    'behind',
    1,
    'air before the note',
    (_place, by) => `Behind the beat${by && `, ${by}`}`,
    (n) => `Behind the beat ${n} times`,
  ),
  uneven: row(
    'uneven',
    0.9,
    null,
    (_place, by) => `Attacks unevenly spaced, ${by}`,
    () => 'Attacks unevenly spaced',
  ),
  early: row(
    'early',
    0.8,
    null,
    (place, by) => `${place} came ${by} early`,
    (n) => `${n} notes came early`,
  ),
  late: row(
    'late',
    0.8,
    'air before the note',
    (place, by) => `${place} came ${by} late`,
    (n) => `${n} notes came late`,
  ),
  'mode-low': row(
    'mode low',
    1.1,
    'air before the note',
    (place, by) => `The harmonic ${place} lay ${by} low`,
    (n) => `${n} harmonics lay low`,
  ),
  'mode-high': row(
    'mode high',
    1.1,
    null,
    (place, by) => `The harmonic ${place} lay ${by} high`,
    (n) => `${n} harmonics lay high`,
  ),
  'mode-missed': row(
    'mode not reached',
    1.5,
    null,
    (place) => `${place} was not reached`,
    (n) => `${n} modes were not reached`,
  ),
} as const satisfies Record<string, FaultAbout>;

/** What can be wrong. */
export type FaultKind = keyof typeof FAULTS;
export const FAULT_KINDS = Object.keys(FAULTS) as FaultKind[];

/** Faults after which a note was not as it is written, though it was played. */
export const NOT_WHOLE: readonly FaultKind[] = [
  'break-up',
  'break-down',
  'squeak',
  'slipped',
  'stopped',
  'cut-short',
];

/** The fault that an event is; null for what other measures tell. */
export function faultOfEvent(kind: EventKind, up: boolean): FaultKind | null {
  return (
    FAULT_KINDS.find((fault) => {
      const { events }: FaultAbout = FAULTS[fault];
      return events?.some(([each, way]) => each === kind && (way === 'any' || (way === 'up') === up));
    }) ?? null
  );
}

function row(
  word: string,
  gravity: number,
  cue: Cue | null,
  one: FaultAbout['one'],
  many: FaultAbout['many'],
  events?: FaultAbout['events'],
): FaultAbout {
  return { word, gravity, cue, one, many, ...(events && { events }) };
}
