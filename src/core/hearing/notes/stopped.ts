import { clamp, type Decibels, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { logOdds, type Evidence } from './evidence';
import { hopMean } from './gaps';
import type { Due } from './hearing';
import type { Line } from './line';
import { DUE_ODDS, isAt } from './scene';

/** What is seen before a moment at which something else begins to sound in a tone's place: levels in dB. */
interface Seen {
  /** Most by which the tone's partials fall in four frames. */
  readonly falls: Decibels;
  /** Lowest level, against what the tone's was. */
  readonly lowest: Decibels;
  /** How new the sound is. */
  readonly novelty: number;
  /** Whether what begins lies above the tone. */
  readonly isAbove: boolean;
}

/**
 * Fitted by logistic regression to 2,200 tongued beginnings of notes and 4,100 moments in which nothing was tongued (breaks, squeaks and
 * slurs, with and without a wrong mode), of all simulated instruments in living and bad rooms; each quarter of the instruments was told
 * by the others. How the moment itself sounds told no more.
 */
const PRIOR = -7.41;
const EVIDENCE: readonly Evidence<Seen>[] = [
  { weight: 0.661, of: ({ falls }) => clamp(falls, 0, 8) },
  { weight: -0.431, of: ({ lowest }) => clamp(lowest, -14, 2) },
  { weight: 3.72, of: ({ novelty }) => Math.min(1, novelty) },
  // Where a tone breaks upwards its own partials fall as if it stopped.
  { weight: -1.91, of: ({ novelty, isAbove }) => (isAbove ? Math.min(1, novelty) : 0) },
];
/** In a living room six of a thousand breaks are over this, and seven of eight stops; less where the music has a start. */
const TOLD_FROM = 1.8;

/** Where nothing rings a stop is heard as one: so far the level falls just before. */
const FALLS_DB: Decibels = 5;
const JUST_BEFORE = { frames: 5, before: 3 } as const;

/** Over what still rings, a pitch below it is found as soon as its window reaches into it, so long before it sounds. */
const EARLY: Seconds = 0.025;

/** What of a scene is looked at. */
export interface Stopping {
  readonly line: Pick<Line, 'growthDb' | 'hopDb' | 'novelty'>;
  readonly frames: Pick<Frames, 'hopSeconds' | 'startSeconds'>;
  readonly rings: boolean;
  readonly due: readonly Due[];
}

/** When the tone was whole: so long before, over so many frames. */
const WHOLE: { readonly before: Seconds; readonly frames: number } = { before: 0.13, frames: 12 };
const FALL_FRAMES = 4;
const LEVEL_FRAMES = 3;
/** Frames around the moment, half-open, in which each is looked for. */
const LOOK = {
  falls: { from: -16, to: 0 },
  lowest: { from: -12, to: 3 },
  novelty: { from: -14, to: -3 },
} as const;

/**
 * Whether a tone had been stopped when something else began in its place at a frame: then that begins a note, and breaks none.
 * @param isAbove whether that lies above the tone.
 */
export function hadStopped(
  from: number,
  isAbove: boolean,
  { line: { growthDb, hopDb, novelty }, frames: { hopSeconds, startSeconds }, rings, due }: Stopping,
): boolean {
  const whole = hopMean(hopDb, from - Math.round(WHOLE.before / hopSeconds), WHOLE.frames);
  if (!rings) return whole - hopMean(hopDb, from - JUST_BEFORE.before, JUST_BEFORE.frames) > FALLS_DB;
  const over = (
    moment: number,
    look: { readonly from: number; readonly to: number },
    of: (frame: number) => number,
  ) =>
    Array.from({ length: look.to - look.from }, (_, i) => moment + look.from + i)
      .filter((frame) => frame >= 0 && frame < hopDb.length)
      .map(of);
  const oddsAt = (moment: number) =>
    logOdds(PRIOR, EVIDENCE, {
      falls: -Math.min(...over(moment, LOOK.falls, (i) => sumOf(growthDb.subarray(i, i + FALL_FRAMES)))),
      lowest: Math.min(
        ...over(
          moment,
          LOOK.lowest,
          (i) => sumOf(hopDb.subarray(i, i + LEVEL_FRAMES)) / LEVEL_FRAMES - whole,
        ),
      ),
      novelty: Math.max(...over(moment, LOOK.novelty, (i) => (Number.isNaN(novelty[i]!) ? 1 : novelty[i]!))),
      isAbove,
    });
  const at = startSeconds + from * hopSeconds;
  if (!due.some((time) => isAt(time, at))) return oddsAt(from) > TOLD_FROM;
  const latest = isAbove ? from : from + Math.round(EARLY / hopSeconds);
  return (
    Math.max(...Array.from({ length: latest + 1 - from }, (_, i) => oddsAt(from + i))) > TOLD_FROM - DUE_ODDS
  );
}

const sumOf = (values: Float32Array): number => values.reduce((sum, value) => sum + (value || 0), 0);
