import type { Decibels, Hertz, Seconds } from '@/core/base';
import { isSpoilt, type Frames } from '@/core/hearing/signal';
import { hertzToMidi } from '@/core/tuning';
import { floorOf } from '@/core/hearing/room';

const OVER_FLOOR_DB = 6;
const UNDER_PEAK_DB = 50;
/** Hops fainter than this against the loudest so near to them are silent, though windows over them hold what sounds beside them. */
const SILENT_DB = 30;
const BESIDE: Seconds = 0.043;
/** Fainter than this against what was taken out, it is left over from it. */
const REST_DB = 20;

/** What sounded, frame by frame, as notes are looked for in it. */
export interface Line {
  /** Pitch in MIDI numbers with fractions; NaN where there is no sound, or none that stands out. */
  readonly pitch: Float64Array;
  readonly levelDb: Float64Array;
  /** How periodic each frame is: see Frames. */
  readonly clarity: Float32Array;
  /** Level of single hops: see Frames. */
  readonly hopDb: Float32Array;
  /** What does not carry on, and how the partials grow: see Frames. */
  readonly novelty: Float32Array;
  readonly growthDb: Float32Array;
  /** How many times the found pitch was raised, where an undertone had taken its place; 0 where the note was put over it; 1 elsewhere. */
  readonly lifted: Uint8Array;
  /** Which partial had been found in place of its tone; 1 where none had. */
  readonly lowered: Uint8Array;
  /** Where no pitch is found for longer than this, the sound has stopped: long windows see none while it changes. */
  readonly dropout: Seconds;
  readonly floorDb: Decibels;
}

const SHORTEST_DROPOUT: Seconds = 0.022;
const DROPOUT_WINDOWS = 0.6;

/** Pitch and level with silence removed and short masked stretches bridged. */
export function soundingLine(frames: Frames, a4: Hertz): Line {
  let peak = -Infinity;
  for (let i = 0; i < frames.count; i++) if (!frames.masked[i]) peak = Math.max(peak, frames.levelDb[i]!);
  const floorDb = floorOf(frames);
  const gate = Math.max(Math.min(floorDb + OVER_FLOOR_DB, peak - 12), peak - UNDER_PEAK_DB, -80);
  const pitch = new Float64Array(frames.count).fill(NaN);
  const levelDb = Float64Array.from(frames.levelDb);
  for (let i = 0; i < frames.count; i++) {
    if (!frames.masked[i] && levelDb[i]! >= gate && !isSilent(frames, i) && !isRestOfDrone(frames, i))
      pitch[i] = hertzToMidi(frames.f0[i]!, a4);
  }
  bridgeMasked(frames.masked, pitch, levelDb);
  const { clarity, hopDb, settings } = frames;
  const { novelty, growthDb } = withoutMasked(frames);
  return {
    pitch,
    clarity,
    levelDb,
    hopDb,
    novelty,
    growthDb,
    lifted: new Uint8Array(frames.count).fill(1),
    lowered: new Uint8Array(frames.count).fill(1),
    dropout: Math.max(SHORTEST_DROPOUT, (DROPOUT_WINDOWS * settings.pitch.window) / settings.pitch.rate),
    floorDb,
  };
}

/** How new some frames are; where no pitch is found around one, or another, nothing is carried on. */
export const noveltyIn = ({ novelty }: Line, from: number, to: number): Float64Array =>
  Float64Array.from(novelty.subarray(from, to), (value) => (Number.isNaN(value) ? 1 : value));

/** What is covered by a known sound says nothing new of the player. */
function withoutMasked({ masked, novelty, growthDb }: Frames): Pick<Line, 'novelty' | 'growthDb'> {
  const carriesOn = (values: Float32Array) => values.map((value, i) => (masked[i] ? 0 : value));
  return { novelty: carriesOn(novelty), growthDb: carriesOn(growthDb) };
}

function isSilent({ hopDb, levelDb, hopSeconds }: Frames, frame: number): boolean {
  const beside = Math.round(BESIDE / hopSeconds);
  const loudest = (of: Float32Array, reach: number) =>
    of
      .subarray(Math.max(0, frame - reach), frame + reach + 1)
      .reduce((most, db) => Math.max(most, db), -Infinity);
  return loudest(hopDb, 1) < loudest(levelDb, beside) - SILENT_DB;
}

/** What little of a drone the notches let through until they have settled. */
function isRestOfDrone({ removedDb, removedHz, levelDb, f0 }: Frames, frame: number): boolean {
  return levelDb[frame]! < removedDb[frame]! - REST_DB && isSpoilt(1, f0[frame]!, removedHz);
}

function bridgeMasked(masked: Uint8Array, pitch: Float64Array, levelDb: Float64Array): void {
  for (let i = 0; i < masked.length; i++) {
    if (!masked[i]) continue;
    let to = i;
    while (to < masked.length && masked[to]) to++;
    const before = i - 1;
    const span = to - before;
    const steady = before >= 0 && to < masked.length && Math.abs(pitch[to]! - pitch[before]!) < 0.5;
    for (let k = i; k < to; k++) {
      const share = (k - before) / span;
      const left = levelDb[Math.max(0, before)]!;
      const right = levelDb[Math.min(masked.length - 1, to)]!;
      levelDb[k] = left + share * (right - left);
      if (steady) pitch[k] = pitch[before]! + share * (pitch[to]! - pitch[before]!);
    }
    i = to;
  }
}

/** While one pitch gives way to another, the window that finds it holds both for about half of its length. */
export function ownSeconds({ settings: { pitch } }: Frames): Seconds {
  return (0.5 * pitch.window) / pitch.rate;
}
