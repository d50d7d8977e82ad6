import { clamp, type Decibels, type Hertz, type Midi, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { isOverItsEcho } from './echoes';
import { hopMean } from './gaps';
import { modeInNote, type Fits, type Together, type Tone } from './tones';
import { voicesOf } from './voices';
import type { Plateau } from './plateau';

/** So long before it is found, and after, a note may have begun; an echo hides a soft start. */
const EARLIEST: Seconds = 0.2;
const LATEST: Seconds = 0.015;
/** A note that is tongued again is found in its own echo, before it sounds: until then nothing of it has ended. */
const LATEST_AGAIN: Seconds = 0.03;
const ENDS_AGAIN: Seconds = -0.02;
/** From so long after it is found a note is taken to hold, for so many frames. */
const HOLDS: Seconds = 0.12;
const HELD = 14;
const SHORTEST: Seconds = 0.037;
/** … and so many periods of the wrong mode. */
const FEWEST_PERIODS = 3;
/** What lasts to the end of this is no blip. */
const LONGEST: Seconds = 0.125;
/** Frames at the ends of a beginning that the window blurs, and those before it and after it that are looked at. */
const BLUR = 2;
const BEFORE = 8;
const AFTER = 11;
const JUST_BEFORE = 4;
/** Fainter than this against all that sounds afterwards nothing is counted, and no beginning is told. */
const FAINTEST: Decibels = -30;
const TOLD: Decibels = -16;

/** What is seen of a possible beginning. Levels in dB. */
export interface Seen {
  /** How far the wrong mode grows where it begins, up to 15. */
  readonly comes: Decibels;
  /** How far it falls after it, up to 12: a sound rings on, a click of the tongue or a key does not. */
  readonly goes: Decibels;
  /** Its level against the note's after it, −20 to 0, and against the note's meanwhile, −15 to 15. */
  readonly level: Decibels;
  readonly alone: Decibels;
  /** How far the note itself has grown meanwhile, up to 10. */
  readonly grown: Decibels;
  /** How far above that the note never falls afterwards, −5 to 12. */
  readonly follows: Decibels;
  /** Level of what only the note has against all that sounds, −15 to 0. */
  readonly own: Decibels;
  /** How new the frames are around its beginning and its end, up to 1.2. */
  readonly begins: number;
  readonly ends: number;
  /**
   * Where a note is tongued again, each partial with one voice: how much higher the mode's stand than the note's others, against how
   * the note holds them, −5 to 25; and how far the mode's rise, −10 to 20.
   */
  readonly contrast: Decibels;
  readonly rises: Decibels;
  /** How far its length is from 50 ms. */
  readonly length: Seconds;
}

/** In log-odds, a unit of each. */
type Weights = Readonly<Record<keyof Seen | 'any', number>>;

/**
 * Fitted by logistic regression to 400 wrong beginnings of fifteen simulated instruments in living and bad rooms, and 10,000 other modes
 * of notes that began as they should (slurred, tongued, repeated); a third of the instruments were held out while it was chosen.
 */
const APART: Weights = {
  any: 0.45,
  comes: 0.41,
  goes: -0.18,
  level: 0.33,
  alone: 0.12,
  grown: -0.47,
  follows: 0.27,
  own: 0.29,
  begins: 0,
  ends: 0,
  contrast: 0,
  rises: 0,
  length: -39,
};
/** Where all partials of the wrong mode are an earlier note's, or the note's, one that grows early is less. */
const SHARED: Weights = { ...APART, any: APART.any - 3.3 };
/**
 * Where all are both's it is told by what begins and ends anew while the note's others wait: fitted
 * to 120 wrong beginnings of 40 ms and more and 1,700 good ones of repeated notes, each quarter of the instruments told by the others.
 */
const BOTHS: Weights = {
  any: -4,
  comes: 0.28,
  goes: -0.09,
  level: 0.32,
  alone: -0.08,
  grown: -0.63,
  follows: 0.29,
  own: 0.26,
  begins: 2.74,
  ends: 4.68,
  contrast: 0,
  rises: 0,
  length: -39,
};
/** Over the echo of the note itself its partials fall together, and only those of the mode rise. */
const AGAIN: Weights = { ...BOTHS, any: -6, contrast: 0.35, length: -20 };
export const USUAL_LENGTH: Seconds = 0.05;
/** From here on a time by itself tells of a beginning; from the second on one is looked at again, but where all partials are both's. */
export const TOLD_FROM = 2.4;
const LOOKED_AT_FROM = -3;
/** Frames on each side in which it is looked how new a moment is. */
const LOOK_FRAMES = 3;
const MOST_NEW = 1.2;
/** What is a beginning is followed by the note: afterwards it never falls within this of what it was meanwhile. */
const FOLLOWS: Decibels = 1.5;

/** A level that falls by this over so many frames is a stop. */
const STOP_DB: Decibels = 2.5;
const STOP_FRAMES = 4;

/**
 * Whose the partials of a mode are that tell of it: its own, or also an earlier note's, the note's, or both's; or all of them
 * are the note's that is tongued again.
 */
export type Whose = 'own' | 'earliers' | 'notes' | 'again' | 'boths';

/** A time in which a mode may have sounded, and what of it is seen in the room. Frames, half-open. */
export interface Likeliest {
  readonly from: number;
  readonly to: number;
  readonly pitch: Midi;
  readonly seen: Seen;
  readonly whose: Whose;
  /** What was fitted to the sound. */
  readonly together: Together;
  readonly odds: number;
}

/**
 * When a mode is likeliest to have sounded as a note began, in a room where the notes before it still ring: the partials of all of them,
 * of the note and of the mode are fitted to the sound together, and those that only the mode has must come before those that only the
 * note has. Where all that the mode has are partials of others, it takes more. Null where it is unlikely.
 */
export function likeliestTime(
  mode: Midi,
  note: Plateau,
  earlier: readonly Midi[],
  frames: Frames,
  fits: Fits,
  a4: Hertz,
): Likeliest | null {
  const hop = frames.hopSeconds;
  const together = modeInNote(mode, note.pitch, earlier, fits, a4);
  if (!together) return null;
  const { tones, amplitudesAt } = together;
  const isAgain = isOverItsEcho(note.pitch, earlier);
  const modes = SHARES.find(({ isModes, whose }) => (whose !== 'again' || isAgain) && tones.some(isModes));
  const isNotes = NOTES_OWN.find((is) => tones.some(is));
  if (!modes || !isNotes) return null;
  const { isModes, whose, weights, least } = modes;
  const first = note.from - Math.round(EARLIEST / hop) - BEFORE;
  const shortest = Math.round(Math.max(SHORTEST, FEWEST_PERIODS / midiToHertz(mode, a4)) / hop);
  const longest = Math.round(LONGEST / hop);
  const last = Math.round((whose === 'again' ? LATEST_AGAIN : LATEST) / hop);
  const earliestEnd = whose === 'again' ? note.from - first + Math.round(ENDS_AGAIN / hop) : 0;
  const count = note.from - first + last + longest + AFTER + BLUR;
  const powers = { mode: new Float64Array(count), note: new Float64Array(count), all: 0 };
  const heard = Array.from({ length: count }, (_, i) => amplitudesAt(first + i));
  heard.forEach((amplitudes, i) => {
    tones.forEach((tone, k) => {
      const power = amplitudes[k]! ** 2;
      if (isModes(tone)) powers.mode[i]! += power;
      if (isNotes(tone)) powers.note[i]! += power;
      if (first + i >= note.from) powers.all += power / (first + count - note.from);
    });
  });
  const all = 10 * Math.log10(powers.all + 1e-12);
  const faint = powers.all * 10 ** (FAINTEST / 10) + 1e-12;
  const levels = (of: Float64Array) => of.map((power) => 10 * Math.log10(power + faint));
  const ofMode = levels(powers.mode);
  const ofNote = levels(powers.note);
  const meanOfMode = meanOver(ofMode);
  const meanOfNote = meanOver(ofNote);
  const coveredOver = meanOver(Float64Array.from({ length: count }, (_, i) => frames.masked[first + i] ?? 0));
  const holds = note.from - first + Math.round(HOLDS / hop);
  const voices =
    whose === 'again' ? voicesOf(tones, heard, { from: holds, to: Math.min(count, holds + HELD) }) : [];
  const contrastOver = meanOver(Float64Array.from(voices, ({ modes, others }) => modes - others));
  const modesOver = meanOver(Float64Array.from(voices, ({ modes }) => modes));
  const newest = Float64Array.from({ length: count }, (_, i) => newestAround(first + i, frames));
  let best: Likeliest | null = null;
  for (let from = BEFORE; from <= note.from - first + last; from++) {
    // An echo goes on falling where the note is tongued again.
    if (whose !== 'again' && isEnd(first + from, frames)) continue;
    const modeBefore = meanOfMode(from - BEFORE, from - 1);
    const noteBefore = meanOfNote(from - BEFORE, from - 1);
    const latest = Math.min(from + longest, note.to - first - AFTER);
    for (let to = Math.max(from + shortest, earliestEnd); to <= latest; to++) {
      const level = meanOfMode(from + BLUR, to - BLUR);
      // What a click or a loss covers may be its own.
      if (level < all + TOLD || coveredOver(from - BEFORE, to + AFTER) > 0) continue;
      const meanwhile = meanOfNote(from + BLUR, to - BLUR);
      const after = meanOfNote(to + BLUR, to + AFTER);
      const lowest = Math.min(...ofNote.subarray(to + BLUR, to + AFTER));
      if (lowest - meanwhile < FOLLOWS) continue;
      const seen: Seen = {
        comes: clamp(level - modeBefore, 0, 15),
        goes: clamp(level - meanOfMode(to + BLUR, to + BEFORE + 1), 0, 12),
        level: clamp(level - after, -20, 0),
        alone: clamp(level - meanwhile, -15, 15),
        grown: clamp(meanwhile - noteBefore, 0, 10),
        follows: clamp(lowest - meanwhile, -5, 12),
        own: clamp(after - all, -15, 0),
        begins: newest[from]!,
        ends: newest[to]!,
        contrast: clamp(contrastOver(from + BLUR, to - BLUR) || 0, -5, 25),
        rises: clamp(
          modesOver(from + BLUR, to - BLUR) - modesOver(from - JUST_BEFORE, from - 1) || 0,
          -10,
          20,
        ),
        length: Math.abs((to - from) * hop - USUAL_LENGTH),
      };
      const odds = oddsOf(seen, weights);
      if (odds > least && !(best && best.odds >= odds))
        best = { from: first + from, to: first + to, pitch: mode, seen, whose, together, odds };
    }
  }
  return best && best.to - best.from < longest ? best : null;
}

const oddsOf = (seen: Seen, weights: Weights): number =>
  weights.any +
  weights.comes * seen.comes +
  weights.goes * seen.goes +
  weights.level * seen.level +
  weights.alone * seen.alone +
  weights.grown * seen.grown +
  weights.follows * seen.follows +
  weights.own * seen.own +
  weights.begins * seen.begins +
  weights.ends * seen.ends +
  weights.contrast * seen.contrast +
  weights.rises * seen.rises +
  weights.length * seen.length;

/** How new the newest frame near another is. */
const newestAround = (frame: number, { novelty }: Frames): number =>
  novelty
    .subarray(Math.max(0, frame - LOOK_FRAMES), Math.max(0, frame + LOOK_FRAMES + 1))
    .reduce((newest, value) => Math.min(MOST_NEW, Math.max(newest, value || 0)), 0);

/** Whether the sound falls at a frame: a stop makes a sound of its own. */
const isEnd = (frame: number, { hopDb }: Frames): boolean =>
  hopMean(hopDb, frame - 1 - STOP_FRAMES / 2, STOP_FRAMES) -
    hopMean(hopDb, frame + 1 + STOP_FRAMES / 2, STOP_FRAMES) >
  STOP_DB;

interface Share {
  readonly isModes: (tone: Tone) => boolean;
  readonly whose: Whose;
  readonly weights: Weights;
  /** From where on a time is looked at. */
  readonly least: number;
}
/** Which tones show the wrong mode, the first of these that any tone meets, and what is then weighed. */
const SHARES: readonly Share[] = [
  {
    isModes: ({ other, note, earlier }) => other && !note && !earlier,
    whose: 'own',
    weights: APART,
    least: LOOKED_AT_FROM,
  },
  { isModes: ({ other, note }) => other && !note, whose: 'earliers', weights: SHARED, least: LOOKED_AT_FROM },
  {
    isModes: ({ other, earlier }) => other && !earlier,
    whose: 'notes',
    weights: SHARED,
    least: LOOKED_AT_FROM,
  },
  { isModes: ({ other }) => other, whose: 'again', weights: AGAIN, least: LOOKED_AT_FROM },
  { isModes: ({ other }) => other, whose: 'boths', weights: BOTHS, least: TOLD_FROM },
];
/** And which show the note. */
const NOTES_OWN: readonly ((tone: Tone) => boolean)[] = [
  ({ note, other, earlier }) => note && !other && !earlier,
  ({ note, other }) => note && !other,
  ({ note, earlier }) => note && !earlier,
];

/** Mean over frames `from … to − 1`, each in the same time. */
function meanOver(values: Float64Array): (from: number, to: number) => number {
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, i) => (sums[i + 1] = sums[i]! + value));
  return (from, to) => (sums[to]! - sums[from]!) / (to - from);
}
