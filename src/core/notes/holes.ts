import { median } from 'd3-array';
import { modeOf, writtenOf, type Instrument } from '@/core/instruments';
import type { Frames } from '@/core/signal';
import { centsBetween, midiToHertz, type Hertz, type Seconds } from '@/core/tuning';
import type { NoteEvent } from './note';
import type { Plateau } from './plateaus';

/** A hole at a slur: this deep for this long. */
const GAPS: readonly { readonly depthDb: number; readonly seconds: Seconds }[] = [
  { depthDb: 9, seconds: 0.02 },
  { depthDb: 6, seconds: 0.04 },
];
/** The windows' blur takes this much off the length of a hole. */
const BLUR: Seconds = 0.004;
/** Deeper than this the sound had stopped: the tongue, not a hole in a slur. */
const STOPPED_DB = 32;
const LOOK: Seconds = 0.12;
const UNDERTONE_DB = -20;
const UNDERTONE_HOLDS: Seconds = 0.06;
const UNDERTONE_CENTS = 60;

/** Holes in the level at the slurs between notes. */
export function gapsBetween(notes: readonly Plateau[], frames: Frames, a4: Hertz): NoteEvent[] {
  const hop = frames.hopSeconds;
  return notes.flatMap((note, index) => {
    const before = notes[index - 1];
    if (!before || (note.from - before.to) * hop > LOOK || Math.abs(note.pitch - before.pitch) < 0.6) return [];
    const period = 1 / midiToHertz(Math.min(note.pitch, before.pitch), a4);
    const found = holeAround(frames, before, note, Math.max(1, Math.round(period / hop)));
    return found ? [{ kind: 'gap' as const, ...found, soundingMidi: null, noteIndex: index, confidence: 0.8 }] : [];
  });
}

function holeAround(frames: Frames, before: Plateau, after: Plateau, smooth: number) {
  const hop = frames.hopSeconds;
  const look = Math.round(LOOK / hop);
  const settled = (from: number, to: number) => median(frames.levelDb.subarray(Math.max(0, from), Math.max(0, to))) ?? NaN;
  const edge = Math.round(0.1 / hop);
  const left = settled(Math.max(before.from, before.to - 3 * edge), before.to - Math.min(edge, (before.to - before.from) >> 2));
  const right = settled(after.from + Math.min(edge, (after.to - after.from) >> 2), Math.min(after.to, after.from + 3 * edge));
  const from = Math.max(before.from, before.to - look);
  const to = Math.min(after.to, after.from + look);
  const reference = Math.min(left, right);
  const depth = (i: number) => reference - hopMean(frames.hopDb, i, smooth);
  for (const gap of GAPS) {
    let start = -1;
    let deepest = 0;
    for (let i = from; i <= to; i++) {
      const below = i < to ? depth(i) : 0;
      if (below >= gap.depthDb) {
        if (start < 0) start = i;
        deepest = Math.max(deepest, below);
        continue;
      }
      if (start >= 0 && (i - start) * hop >= gap.seconds - BLUR && deepest < STOPPED_DB) {
        return { startSeconds: start * hop, endSeconds: i * hop };
      }
      start = -1;
      deepest = 0;
    }
  }
  return null;
}

/** Mean power of a few hops around one, in dB: at least one period of the tone. */
function hopMean(hopDb: Float32Array, at: number, count: number): number {
  let sum = 0;
  let n = 0;
  for (let i = Math.max(0, at - (count >> 1)); i < Math.min(hopDb.length, at - (count >> 1) + count); i++) {
    sum += 10 ** (hopDb[i]! / 10);
    n++;
  }
  return n ? 10 * Math.log10(sum / n) : NaN;
}

/** Components at k/n of a note that sounds in mode n. */
export function undertonesIn(note: Plateau, index: number, frames: Frames, instrument: Instrument): NoteEvent[] {
  const mode = modeOf(instrument, writtenOf(instrument, Math.round(note.pitch)));
  if (mode === 1) return [];
  const hop = frames.hopSeconds;
  const belongs = (i: number) => {
    const { subHz, subDb, f0 } = frames;
    if (!(subDb[i]! > UNDERTONE_DB)) return false;
    for (let k = 1; k < mode; k++) if (Math.abs(centsBetween(subHz[i]!, (f0[i]! * k) / mode)) < UNDERTONE_CENTS) return true;
    return false;
  };
  const events: NoteEvent[] = [];
  let start = -1;
  let last = -1;
  const every = frames.settings.spectrum.every;
  for (let i = note.from; i <= note.to + 3 * every; i++) {
    if (i < note.to && belongs(i)) {
      if (start < 0) start = i;
      last = i;
    } else if (start >= 0 && i - last > 2 * every) {
      if ((last - start + 1) * hop >= UNDERTONE_HOLDS) events.push(undertone(frames, start, last + 1, index));
      start = -1;
    }
  }
  return events;
}

function undertone(frames: Frames, from: number, to: number, noteIndex: number): NoteEvent {
  // The spectrum sees it come and go within its own window: its ends are where it has half its amplitude.
  const strongest = Math.max(...frames.subDb.subarray(from, to).filter((db) => !Number.isNaN(db)));
  let first = from;
  let end = to;
  while (first < end && !(frames.subDb[first]! > strongest - 6)) first++;
  while (end > first && !(frames.subDb[end - 1]! > strongest - 6)) end--;
  const hz = median(frames.subHz.subarray(first, end)) ?? NaN;
  return {
    kind: 'undertone',
    startSeconds: first * frames.hopSeconds,
    endSeconds: end * frames.hopSeconds,
    soundingMidi: Number.isNaN(hz) ? null : Math.round(69 + 12 * Math.log2(hz / 440)),
    noteIndex,
    confidence: Math.min(1, 0.6 + (strongest - UNDERTONE_DB) / 30),
  };
}
