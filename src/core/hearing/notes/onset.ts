import { type Hertz, median, type Seconds } from '@/core/base';
import type { Frames, Settings } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { RINGS } from '@/core/hearing/room';
import { multipleOf } from './echoes';
import { hopMean } from './gaps';
import type { Note } from './note';
import type { Plateau } from './plateau';

/** A pitch is found once the window holds so many periods of the tone … */
const PERIODS = 2.4;
/** … which, on the way in from silence, fills it from one end: the rise weighs the middle of the window more. */
const REACH = 0.33;

/**
 * How much later than it begins a tone of some pitch is found, for a note that begins from silence: with a window of W seconds
 * whose middle is the time of its frame, `PERIODS / f0 − REACH·W`, and half a hop. Fitted to the simulated player on nine
 * instruments (within 5 ms from contrabassoon to piccolo).
 */
export const onsetDelay = ({ pitch, hopSeconds }: Settings, f0: Hertz): Seconds =>
  PERIODS / f0 - (REACH * pitch.window) / pitch.rate + hopSeconds / 2;

/** A stop between two notes lets the level fall by this below the softer of them, even where it rings on. */
const STOP_DB = 2.5;
const LOOK: { readonly before: Seconds; readonly after: Seconds } = { before: 0.1, after: 0.05 };
/** Shares of the settled amplitude between which a rise is measured, and how often their distance it began before the first. */
const RISE = { low: 0.35, high: 0.7, back: 1.6 } as const;
/** So many frames before the level is least, what begins is still under the echo. */
const EARLIEST = 4;
const LONGEST_RISE: Seconds = 0.09;
/**
 * Over the echo of another pitch both tell: the rise, which that echo shakes, and the change of pitch, which is late by what the
 * echo outlasts: a share of the decay, larger where the two are so near that they blend. Fitted to 700 notes of the simulated player
 * on all instruments in living and bad rooms, and to lines by semitones: 96 and 88 % within 20 ms, by the rise alone 85 and 79 %.
 * `rise` is what the rise weighs, as far as it is not `furthest` from where the change of pitch puts the note.
 */
const TOGETHER = { rise: 0.4, furthest: 0.05 } as const;
const LATE = {
  share: 0.06,
  shareWhenNear: 0.1,
  nearSemitones: 1.5,
  shareWithoutGap: 0.5,
  always: 0.004,
} as const;

/**
 * Where a note of another pitch begins over the echo of the one before it: by the rise and by the change of pitch, which comes
 * when the new sound outweighs the old.
 * @returns frames, fractional; null where neither tells more than the pitch itself.
 */
export function onsetOver(
  before: Plateau,
  note: Plateau,
  frames: Frames,
  periodSeconds: Seconds,
  decaySeconds: Seconds,
): number | null {
  const rise = riseOver(before, note, frames, periodSeconds, decaySeconds);
  // What lies in the partials of the note before may hide for long after it began.
  if (decaySeconds <= RINGS || multipleOf(note.pitch, before.pitch) !== null) return rise;
  if (rise === null && !note.joined) return null;
  const isNear = Math.abs(note.pitch - before.pitch) < LATE.nearSemitones;
  // Without a rise it may be slurred: no gap, in which the echo alone is heard, makes it later.
  const share = (rise === null ? LATE.shareWithoutGap : 1) * (isNear ? LATE.shareWhenNear : LATE.share);
  const late = LATE.always + share * decaySeconds;
  const changed = note.from - late / frames.hopSeconds;
  const furthest = TOGETHER.furthest / frames.hopSeconds;
  const pulled = Math.max(-furthest, Math.min(furthest, (rise ?? changed) - changed));
  // However long it rings, the note before came first.
  return Math.max(before.from + 1, changed + TOGETHER.rise * pulled);
}

/**
 * Where the level rises over the echo of a note before: what the echo still gives is taken off, and the rise of the rest followed back.
 * @returns frames, fractional; null where the level shows no stop.
 */
function riseOver(
  before: Plateau,
  note: Plateau,
  { hopDb, hopSeconds }: Frames,
  periodSeconds: Seconds,
  decaySeconds: Seconds,
): number | null {
  const smooth = 1 + Math.max(1, Math.round(periodSeconds / hopSeconds));
  const power = (i: number) => 10 ** (hopMean(hopDb, i, smooth) / 10);
  const from = Math.max(before.from, note.from - Math.round(LOOK.before / hopSeconds));
  const to = Math.min(note.to, note.from + Math.round(LOOK.after / hopSeconds));
  let least = from;
  for (let i = from; i < to; i++) if (power(i) <= power(least)) least = i;
  const settled = median(
    Array.from({ length: 12 }, (_, k) =>
      power(Math.min(note.to - 1, note.from + Math.round(0.06 / hopSeconds) + k)),
    ),
  );
  const was = median(Array.from({ length: 12 }, (_, k) => power(Math.max(before.from, from - k))));
  if (!(10 * Math.log10(Math.min(settled, was) / power(least)) >= STOP_DB)) return null;
  const keeps = 10 ** ((-6 * hopSeconds) / decaySeconds);
  const crossing = (share: number): number | null => {
    let last = 0;
    for (let i = least; i < least + LONGEST_RISE / hopSeconds; i++) {
      const fresh = Math.sqrt(Math.max(0, power(i) - power(least) * keeps ** (i - least)) / settled);
      if (fresh >= share) return fresh > last ? i - (fresh - share) / (fresh - last) : i;
      last = fresh;
    }
    return null;
  };
  const low = crossing(RISE.low);
  const high = crossing(RISE.high);
  if (low === null || high === null) return null;
  return Math.max(least - EARLIEST, low - RISE.back * (high - low));
}

/** A note put where it begins, what finding it takes is taken off. @param before the note before it; it ends first. */
export function atItsOnset(note: Note, before: Note | undefined, settings: Settings, a4: Hertz): Note {
  const delay = onsetDelay(settings, midiToHertz(note.soundingMidi, a4));
  const startSeconds = Math.max(0, before?.endSeconds ?? 0, note.startSeconds - delay);
  const { speechSeconds } = note.attack;
  return {
    ...note,
    startSeconds,
    attack: {
      ...note.attack,
      speechSeconds: speechSeconds === null ? null : Math.max(0, speechSeconds - Math.max(0, delay)),
    },
  };
}
