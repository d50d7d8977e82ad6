import { median } from 'd3-array';
import type { Seconds } from '@/core/tuning';
import type { Line } from './line';

/** A stretch of frames on one pitch, half-open. */
export interface Plateau {
  readonly from: number;
  readonly to: number;
  /** Median pitch in MIDI numbers. */
  readonly pitch: number;
  /** No silence lies between this and the plateau before. */
  readonly joined: boolean;
}

/** Two plateaus nearer than this are one pitch. */
export const ONE_PITCH_SEMITONES = 0.6;
const LONGEST_DROPOUT: Seconds = 0.022;
/** Frames on the way from one pitch to the next are no silence. */
const LONGEST_GLIDE: Seconds = 0.06;
/** Time over which a plateau's own pitch is followed, so that a slow bend stays one. */
const FOLLOW: Seconds = 0.3;
const FEWEST_FRAMES = 2;
const RETONGUE_DIP_DB = 7;
const RETONGUE_REACH: Seconds = 0.12;

/** Cuts the line where the pitch leaves, where the sound stops, and where the tongue repeats a note. */
export function plateausOf(line: Line, hop: Seconds): Plateau[] {
  const raw = byPitch(line.pitch, hop).filter((part) => part.to - part.from >= FEWEST_FRAMES);
  return mergeDebris(raw, hop).flatMap((part) => splitByTongue(line, part, hop));
}

export function withPitch(line: Line, from: number, to: number, joined: boolean): Plateau {
  return { from, to, joined, pitch: median(line.pitch.subarray(from, to)) ?? NaN };
}

function byPitch(pitch: Float64Array, hop: Seconds): Plateau[] {
  const dropout = Math.round(LONGEST_DROPOUT / hop);
  const follow = Math.round(FOLLOW / hop);
  const parts: Plateau[] = [];
  let from = -1;
  let last = -1;
  let centre = NaN;
  let endOfPrevious = -Infinity;
  const close = () => {
    if (from < 0) return;
    const joined = (from - endOfPrevious) * hop <= LONGEST_GLIDE;
    parts.push({ from, to: last + 1, joined, pitch: median(pitch.subarray(from, last + 1)) ?? NaN });
    endOfPrevious = last + 1;
    from = -1;
  };
  for (let i = 0; i < pitch.length; i++) {
    const value = pitch[i]!;
    if (Number.isNaN(value)) continue;
    const leaves = Math.abs(value - centre) > ONE_PITCH_SEMITONES;
    if (from >= 0 && (leaves || i - last - 1 > dropout)) close();
    if (from < 0) {
      from = i;
      centre = value;
    } else if (i - from < 8 || (i - from) % 4 === 0) {
      centre = median(pitch.subarray(Math.max(from, i - follow), i + 1)) ?? value;
    }
    last = i;
  }
  close();
  return parts;
}

/** Joins neighbours of one pitch that only a frame or two of something else had parted. */
function mergeDebris(parts: Plateau[], hop: Seconds): Plateau[] {
  const merged: Plateau[] = [];
  for (const part of parts) {
    const before = merged[merged.length - 1];
    const near = before && (part.from - before.to) * hop <= LONGEST_DROPOUT;
    if (before && near && Math.abs(before.pitch - part.pitch) < ONE_PITCH_SEMITONES) {
      const longer = before.to - before.from >= part.to - part.from ? before : part;
      merged[merged.length - 1] = { from: before.from, to: part.to, joined: before.joined, pitch: longer.pitch };
    } else merged.push(part);
  }
  return merged;
}

function splitByTongue(line: Line, part: Plateau, hop: Seconds): Plateau[] {
  const { levelDb } = line;
  const reach = Math.round(RETONGUE_REACH / hop);
  const parts: Plateau[] = [];
  let from = part.from;
  for (let i = part.from + 2; i < part.to - 2; i++) {
    const at = levelDb[i]!;
    if (at > levelDb[i - 1]! || at >= levelDb[i + 1]!) continue;
    const before = loudest(levelDb, Math.max(from, i - reach), i);
    const after = loudest(levelDb, i + 1, Math.min(part.to, i + reach));
    if (Math.min(before, after) - at < RETONGUE_DIP_DB) continue;
    parts.push(withPitch(line, from, i, from === part.from && part.joined));
    from = i;
  }
  parts.push(from === part.from ? part : withPitch(line, from, part.to, false));
  return parts;
}

function loudest(levelDb: Float64Array, from: number, to: number): number {
  let most = -Infinity;
  for (let i = from; i < to; i++) most = Math.max(most, levelDb[i]!);
  return most;
}
