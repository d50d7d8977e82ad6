import { median, quantile } from 'd3-array';
import type { Frames } from '@/core/signal';
import { hertzToMidi, type Decibels, type Hertz, type Seconds } from '@/core/tuning';

const SHORTEST_NOTE: Seconds = 0.06;
/** A pitch has to be left for this long before a new note is believed; less is an event inside the note. */
const NEW_PITCH_HOLDS: Seconds = 0.045;
const LEAVES_PITCH_SEMITONES = 0.6;
const LONGEST_DROPOUT: Seconds = 0.022;
/** Time over which a note's own pitch is followed, so that a slow bend stays one note. */
const FOLLOW: Seconds = 0.3;
const RETONGUE_DIP_DB = 7;
const RETONGUE_REACH: Seconds = 0.12;
const OVER_FLOOR_DB = 6;
const UNDER_PEAK_DB = 50;

/** Half-open stretch of frames that one note covers. */
export interface Segment {
  readonly from: number;
  readonly to: number;
}

export interface Line {
  /** Pitch in MIDI numbers with fractions; NaN where there is no sound, or none that stands out. */
  readonly pitch: Float64Array;
  readonly levelDb: Float64Array;
  readonly floorDb: Decibels;
}

/** Pitch and level with silence removed and short masked stretches bridged. */
export function soundingLine(frames: Frames, a4: Hertz): Line {
  const unpitched: number[] = [];
  let peak = -Infinity;
  for (let i = 0; i < frames.count; i++) {
    if (frames.masked[i]) continue;
    if (Number.isNaN(frames.f0[i]!)) unpitched.push(frames.levelDb[i]!);
    peak = Math.max(peak, frames.levelDb[i]!);
  }
  const floorDb = unpitched.length >= 10 ? (quantile(unpitched, 0.05) ?? -120) : -120;
  const gate = Math.max(Math.min(floorDb + OVER_FLOOR_DB, peak - 12), peak - UNDER_PEAK_DB, -80);
  const pitch = new Float64Array(frames.count).fill(NaN);
  const levelDb = Float64Array.from(frames.levelDb);
  for (let i = 0; i < frames.count; i++) {
    if (!frames.masked[i] && levelDb[i]! >= gate) pitch[i] = hertzToMidi(frames.f0[i]!, a4);
  }
  bridgeMasked(frames.masked, pitch, levelDb);
  return { pitch, levelDb, floorDb };
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

/** Splits the line into notes: at silences, at changes of pitch (slurred ones too) and at tongued repetitions. */
export function segmentsOf(line: Line, hop: Seconds): Segment[] {
  const runs = soundingRuns(line.pitch, Math.round(LONGEST_DROPOUT / hop));
  return runs
    .flatMap((run) => splitByPitch(line.pitch, run, hop))
    .flatMap((part) => splitByTongue(line, part, hop))
    .filter((part) => (part.to - part.from) * hop >= SHORTEST_NOTE);
}

function soundingRuns(pitch: Float64Array, longestDropout: number): Segment[] {
  const runs: Segment[] = [];
  let from = -1;
  let last = -1;
  for (let i = 0; i < pitch.length; i++) {
    if (Number.isNaN(pitch[i]!)) continue;
    if (from >= 0 && i - last - 1 > longestDropout) {
      runs.push({ from, to: last + 1 });
      from = -1;
    }
    if (from < 0) from = i;
    last = i;
  }
  if (from >= 0) runs.push({ from, to: last + 1 });
  return runs;
}

function splitByPitch(pitch: Float64Array, run: Segment, hop: Seconds): Segment[] {
  const holds = Math.round(NEW_PITCH_HOLDS / hop);
  const follow = Math.round(FOLLOW / hop);
  const parts: Segment[] = [];
  let from = run.from;
  let centre = settledPitch(pitch, from, run.to, holds);
  let away = 0;
  for (let i = run.from; i < run.to; i++) {
    const value = pitch[i]!;
    if (Number.isNaN(value)) continue;
    away = Math.abs(value - centre) > LEAVES_PITCH_SEMITONES ? away + 1 : 0;
    if (away >= holds) {
      const start = i - away + 1;
      const there = pitch.subarray(start, i + 1);
      const spread = Math.max(...there) - Math.min(...there);
      if (!(spread < LEAVES_PITCH_SEMITONES)) continue;
      parts.push({ from, to: start });
      from = start;
      centre = median(there) ?? value;
      away = 0;
    } else if (away === 0 && (i - from) % 4 === 0 && i - from >= holds) {
      const recent = pitch
        .subarray(Math.max(from, i - follow), i + 1)
        .filter((p) => Math.abs(p - centre) <= LEAVES_PITCH_SEMITONES);
      centre = median(recent) ?? centre;
    }
  }
  parts.push({ from, to: run.to });
  return parts;
}

/** The pitch that a run first comes to rest on. */
function settledPitch(pitch: Float64Array, from: number, to: number, holds: number): number {
  for (let i = from; i + holds <= to; i++) {
    const part = pitch.subarray(i, i + holds);
    if (Math.max(...part) - Math.min(...part) < LEAVES_PITCH_SEMITONES / 2) return median(part) ?? NaN;
  }
  return median(pitch.subarray(from, to)) ?? NaN;
}

function splitByTongue({ levelDb }: Line, part: Segment, hop: Seconds): Segment[] {
  const reach = Math.round(RETONGUE_REACH / hop);
  const parts: Segment[] = [];
  let from = part.from;
  for (let i = part.from + 2; i < part.to - 2; i++) {
    const at = levelDb[i]!;
    if (at > levelDb[i - 1]! || at >= levelDb[i + 1]!) continue;
    const before = loudest(levelDb, Math.max(from, i - reach), i);
    const after = loudest(levelDb, i + 1, Math.min(part.to, i + reach));
    if (Math.min(before, after) - at < RETONGUE_DIP_DB) continue;
    parts.push({ from, to: i });
    from = i;
  }
  parts.push({ from, to: part.to });
  return parts;
}

function loudest(levelDb: Float64Array, from: number, to: number): number {
  let most = -Infinity;
  for (let i = from; i < to; i++) most = Math.max(most, levelDb[i]!);
  return most;
}
