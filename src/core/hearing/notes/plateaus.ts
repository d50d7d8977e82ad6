import type { Seconds } from '@/core/tuning';
import type { Line } from './line';
import { median } from '@/core/base';

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
/** Time over which a plateau's own pitch is followed, so that a slow bend stays one. */
const FOLLOW: Seconds = 0.3;
const FEWEST_FRAMES = 2;
/** A fall this deep between two pitches is the tongue's work. */
const STOP_DB = 30;
const RETONGUE_DIP_DB = 9;
const RETONGUE_REACH: Seconds = 0.07;

/** Cuts the line where the pitch leaves, where the sound stops, and where the tongue repeats a note. */
export function plateausOf(line: Line, hop: Seconds): Plateau[] {
  const raw = withoutSpecks(byPitch(line, hop)).map((part, i, all) => {
    const before = all[i - 1];
    return before && part.joined && stopsBetween(line, before, part) ? { ...part, joined: false } : part;
  });
  return mergeDebris(raw, line, hop).flatMap((part) => splitByTongue(line, part, hop));
}

export function withPitch(line: Line, from: number, to: number, joined: boolean): Plateau {
  return { from, to, joined, pitch: median(line.pitch.subarray(from, to)) };
}

function byPitch({ pitch, dropout: longest }: Line, hop: Seconds): Plateau[] {
  const dropout = Math.round(longest / hop);
  const follow = Math.round(FOLLOW / hop);
  const parts: Plateau[] = [];
  let from = -1;
  let last = -1;
  let centre = NaN;
  let joined = false;
  const close = () => {
    if (from < 0) return;
    parts.push({ from, to: last + 1, joined, pitch: median(pitch.subarray(from, last + 1)) });
    from = -1;
  };
  for (let i = 0; i < pitch.length; i++) {
    const value = pitch[i]!;
    if (Number.isNaN(value)) continue;
    const leaves = Math.abs(value - centre) > ONE_PITCH_SEMITONES;
    if (from >= 0 && (leaves || i - last - 1 > dropout)) close();
    if (from < 0) {
      from = i;
      joined = last >= 0 && i - last - 1 <= dropout;
      centre = value;
    } else if (i - from < 8 || (i - from) % 4 === 0) {
      centre = median(pitch.subarray(Math.max(from, i - follow), i + 1));
    }
    last = i;
  }
  close();
  return parts;
}

/** Leaves out single frames on the way from one pitch to the next; what they joined stays joined. */
function withoutSpecks(parts: Plateau[]): Plateau[] {
  const kept: Plateau[] = [];
  let bridged = true;
  for (const part of parts) {
    bridged = bridged && part.joined;
    if (part.to - part.from < FEWEST_FRAMES) continue;
    kept.push({ ...part, joined: kept.length > 0 && bridged });
    bridged = true;
  }
  return kept;
}

/** Whether the sound stops, however shortly, between two plateaus. */
function stopsBetween({ hopDb, levelDb }: Line, before: Plateau, after: Plateau): boolean {
  const quieter = Math.min(levelDb[(before.from + before.to) >> 1]!, levelDb[(after.from + after.to) >> 1]!);
  for (let i = Math.max(before.from, before.to - 3); i < Math.min(after.to, after.from + 3); i++) {
    if (hopDb[i]! < quieter - STOP_DB) return true;
  }
  return false;
}

/** Joins neighbours of one pitch that only a frame or two of something else had parted. */
export function mergeDebris(parts: Plateau[], line: Line, hop: Seconds): Plateau[] {
  const merged: Plateau[] = [];
  for (const part of parts) {
    const before = merged[merged.length - 1];
    const near = before && part.joined && (part.from - before.to) * hop <= line.dropout;
    if (before && near && Math.abs(before.pitch - part.pitch) < ONE_PITCH_SEMITONES) {
      const longer = before.to - before.from >= part.to - part.from ? before : part;
      merged[merged.length - 1] = {
        from: before.from,
        to: part.to,
        joined: before.joined,
        pitch: longer.pitch,
      };
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
