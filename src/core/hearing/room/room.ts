import { type Decibels, type Hertz, quantile, type Seconds } from '@/core/base';
import { SILENCE_DB, type Frames } from '@/core/hearing/signal';
import * as z from 'zod';

/** What a take says of the room that it was played in; null where no note ended freely. */
export const roomSchema = z.object({
  /** Time in which a sound that has stopped falls by 60 dB. */
  decaySeconds: z.number().nullable(),
  /** By how much the level of a steady tone of one partial varies from note to note, because echoes add to it: a standard deviation. */
  spreadDb: z.number().nullable(),
});
export type RoomSound = z.infer<typeof roomSchema>;

export interface Room extends RoomSound {
  /** The quietest that was heard. */
  readonly floorDb: Decibels;
}

/** An ordinary living room. */
const ORDINARY: RoomSound = { decaySeconds: 0.4, spreadDb: 3.2 };

/**
 * What has to be reckoned with of a room: where no sound ended freely nothing is known of it, and it may be as live as an ordinary one.
 * @param room null: it was not looked at.
 */
export const reckonedWith = (room: RoomSound | null): RoomSound => ({
  decaySeconds: room && (room.decaySeconds ?? ORDINARY.decaySeconds),
  spreadDb: room && (room.spreadDb ?? ORDINARY.spreadDb),
});

/** From this decay on, what has stopped is heard long enough to be taken for what sounds. */
export const RINGS: Seconds = 0.12;
/** What has stopped is heard for this share of the time in which it falls by 60 dB. */
const HEARD_SHARE = 0.6;

/** How long a note is still heard in a room after it has stopped; 0 where hardly anything rings. */
export const blurOf = (decaySeconds: Seconds | null): Seconds =>
  decaySeconds !== null && decaySeconds > RINGS ? HEARD_SHARE * decaySeconds : 0;

/** Onsets over echoes are found to within this share of the decay, a standard deviation: of 0.4 s, nine of ten within 20 ms. */
const ONSET_SHARE = 0.03;
/** How far the time of an onset may be off because of what rings over it; 0 where hardly anything does. */
export const onsetErrorOf = (decaySeconds: Seconds | null): Seconds =>
  decaySeconds !== null && decaySeconds > RINGS ? ONSET_SHARE * decaySeconds : 0;

/** Spread of a tone's level where the echoes are all that is heard, dB. */
const ALL_ECHO_DB: Decibels = 4.34;
/** Where they are louder than this against the whole, nothing could be heard of how loud they are. */
const MOST_ECHO = 0.5;
/** Natural logarithm of a fall by 60 dB, of energy. */
export const SIXTY_DB = 13.8;

/** Share of the echoes in what is heard of a steady tone: what gives the spread 4.34·√(s² + 2s(1−s)) of its level. */
export const echoShareOf = (spreadDb: Decibels): number =>
  Math.min(MOST_ECHO, 1 - Math.sqrt(Math.max(0, 1 - (spreadDb / ALL_ECHO_DB) ** 2)));

/**
 * Share of a swing of the pitch that is left when echoes, which lag behind and so swing out of step, are heard with the sound:
 * |1 − s + s/(1 + jω·T/13.8)|, the delays of echoes being as many as their energy, which decays by 60 dB in T.
 */
export function swingLeft({ decaySeconds, spreadDb }: RoomSound, rate: Hertz): number {
  if (decaySeconds === null || spreadDb === null || decaySeconds <= RINGS) return 1;
  const s = echoShareOf(spreadDb);
  const lag = (2 * Math.PI * rate * decaySeconds) / SIXTY_DB;
  const inStep = 1 - s + s / (1 + lag * lag);
  return Math.hypot(inStep, (s * lag) / (1 + lag * lag));
}

/** A stretch as long as this is looked at for a free decay … */
const STRETCH: Seconds = 0.06;
/** … which is a straight line in decibels to within this, RMS, … */
const STRAIGHT_DB: Decibels = 1.2;
const STRAIGHT_SHARE = 0.1;
/** … has left the loudest just before it by this: the sound itself is over (the usual −5 dB of decay measurements), … */
const UNDER_LOUDEST_DB: Decibels = 5;
const JUST_BEFORE: Seconds = 0.15;
/** … falls by at least this, … */
const LEAST_FALL_DB: Decibels = 4;
/** … and ends so far over the floor. */
const OVER_FLOOR_DB: Decibels = 5;
/** … or by so much that it hardly rings at all. */
const DRY_FALL_DB: Decibels = 20;
/** A sound that ends has left its level by this, within so long. */
const ENDS_DB: Decibels = 18;
const ENDS_WITHIN: Seconds = 0.5;
/** A player who fades is slower than any room that one plays in. */
const SLOWEST: Seconds = 1.5;
/** Until the level has left the loudest by so much, the sound goes on. */
const STILL_SOUNDS_DB: Decibels = 1.5;
const FEWEST = 3;

/**
 * Floor and decay from the sound itself: the level of a sound that has stopped falls along a straight line in decibels
 * (Schroeder, J. Acoust. Soc. Am. 37, 1965), faster than any player fades; so the fast ones among the straight falls are the
 * room's. A blind estimate from free decays.
 */
export function roomOf(frames: Frames): Room {
  const { hopDb, hopSeconds, count } = frames;
  const floorDb = floorOf(frames);
  const stretch = Math.round(STRETCH / hopSeconds);
  const before = Math.round(JUST_BEFORE / hopSeconds);
  const ending = Math.round(ENDS_WITHIN / hopSeconds);
  const smooth = smoothed(hopDb, 2);
  const found: Seconds[] = [];
  const drops: Decibels[] = [];
  for (let from = 0; from + stretch < count; from++) {
    const end = smooth[from + stretch - 1]!;
    const fall = smooth[from]! - end;
    if (fall < LEAST_FALL_DB) continue;
    let loudest = -Infinity;
    for (let i = Math.max(0, from - before); i < from; i++) loudest = Math.max(loudest, smooth[i]!);
    if (smooth[from]! > loudest - UNDER_LOUDEST_DB || !ends(smooth, from, loudest, ending)) continue;
    if (fall >= DRY_FALL_DB) {
      // A soft sound is soon in the floor: how long it lies there says nothing of the room.
      let to = from + 1;
      while (to < from + stretch - 1 && smooth[to]! > floorDb + OVER_FLOOR_DB) to++;
      found.push((60 * (to - from) * hopSeconds) / (smooth[from]! - smooth[to]!));
      drops.push(DRY_FALL_DB);
      continue;
    }
    if (end < floorDb + OVER_FLOOR_DB) continue;
    const line = fitted(smooth, from, stretch);
    const decay = (-60 / line.slope) * hopSeconds;
    if (line.residual > Math.max(STRAIGHT_DB, STRAIGHT_SHARE * fall) || !(decay > 0 && decay <= SLOWEST))
      continue;
    found.push(decay);
    let ended = from;
    while (ended > from - before && smooth[ended]! < loudest - STILL_SOUNDS_DB) ended--;
    drops.push(Math.max(0, loudest - line.start - (60 * (from - ended) * hopSeconds) / decay));
  }
  const known = found.length >= FEWEST;
  return {
    floorDb,
    decaySeconds: known ? quantile(found, 0.5) : null,
    spreadDb: known ? spreadFor(quantile(drops, 0.5)) : null,
  };
}

/** The room's own level: the quietest 5 % of what has no pitch; silence where there is too little of it. */
export function floorOf({ levelDb, masked, count, f0 }: Frames): Decibels {
  const quiet: number[] = [];
  for (let i = 0; i < count; i++) if (!masked[i] && Number.isNaN(f0[i]!)) quiet.push(levelDb[i]!);
  return quiet.length >= 10 ? quantile(quiet, 0.05) : SILENCE_DB;
}

/** Whether a fall is the end of a sound, and not a tone that shakes. */
function ends(level: Float64Array, from: number, loudest: Decibels, within: number): boolean {
  for (let i = from; i < Math.min(level.length, from + within); i++) {
    if (level[i]! < loudest - ENDS_DB) return true;
  }
  return false;
}

/**
 * Standard deviation of the level of one steady partial over places and pitches in a room. @param dropDb how far the level falls at
 * once when the sound stops: what is left is the share r of the echoes; direct sound and a diffuse field together vary in power
 * by √(r² + 2r(1−r)) of their mean (Rice's distribution).
 */
function spreadFor(dropDb: Decibels): Decibels {
  const r = 10 ** (-dropDb / 10);
  return 4.34 * Math.sqrt(r * r + 2 * r * (1 - r));
}

function smoothed(hopDb: Float32Array, reach: number): Float64Array {
  const power = Float64Array.from(hopDb, (dB) => 10 ** (dB / 10));
  return power.map((_, i) => {
    let sum = 0;
    let n = 0;
    for (let k = Math.max(0, i - reach); k <= Math.min(power.length - 1, i + reach); k++, n++)
      sum += power[k]!;
    return 10 * Math.log10(sum / n + 1e-14);
  });
}

function fitted(values: Float64Array, from: number, length: number) {
  const middle = (length - 1) / 2;
  let mean = 0;
  for (let i = 0; i < length; i++) mean += values[from + i]!;
  mean /= length;
  let product = 0;
  let squares = 0;
  for (let i = 0; i < length; i++) {
    product += (i - middle) * (values[from + i]! - mean);
    squares += (i - middle) ** 2;
  }
  const slope = product / squares;
  let error = 0;
  for (let i = 0; i < length; i++) error += (values[from + i]! - mean - slope * (i - middle)) ** 2;
  return { slope, start: mean - slope * middle, residual: Math.sqrt(error / length) };
}
