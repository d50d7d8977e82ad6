import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { RINGS } from '@/core/hearing/room';
import type { NoteEvent } from './note';
import type { Scene } from './scene';
import { median, type Seconds } from '@/core/base';
import type { Plateau } from './plateau';

/** A hole at a slur: this deep for this long. */
const GAPS: readonly { readonly depthDb: number; readonly seconds: Seconds }[] = [
  { depthDb: 9, seconds: 0.02 },
  { depthDb: 6, seconds: 0.04 },
];
/** The windows' blur takes this much off the length of a hole. */
const BLUR: Seconds = 0.004;
/** Deeper than this the sound had stopped: the tongue, not a hole in a slur. */
const STOPPED_DB = 32;
/** Longer than this the notes are apart, not slurred with a hole. */
const LONGEST_GAP: Seconds = 0.11;
const LOOK: Seconds = 0.12;

/**
 * Holes in the level between notes of different pitch. In a room that rings, a hole in a slur and a tongue's stop leave the same,
 * and none is told here: there the dip at a written slur is judged, against what the room adds to it.
 * @param decaySeconds of the room, for 60 dB.
 */
export function gapsBetween(notes: readonly Plateau[], { frames, a4, decaySeconds }: Scene): NoteEvent[] {
  if (decaySeconds > RINGS) return [];
  const hop = frames.hopSeconds;
  return notes.flatMap((note, index) => {
    const before = notes[index - 1];
    if (!before || (note.from - before.to) * hop > LOOK || Math.abs(note.pitch - before.pitch) < 0.6)
      return [];
    const period = 1 / midiToHertz(Math.min(note.pitch, before.pitch), a4);
    const found = holeAround(frames, before, note, Math.max(1, Math.round(period / hop)));
    return found
      ? [{ kind: 'gap' as const, ...found, soundingMidi: null, noteIndex: index, confidence: 0.8 }]
      : [];
  });
}

function holeAround(frames: Frames, before: Plateau, after: Plateau, smooth: number) {
  const hop = frames.hopSeconds;
  const look = Math.round(LOOK / hop);
  const settled = (from: number, to: number) =>
    median(frames.levelDb.subarray(Math.max(0, from), Math.max(0, to)));
  const edge = Math.round(0.1 / hop);
  const left = settled(
    Math.max(before.from, before.to - 3 * edge),
    before.to - Math.min(edge, (before.to - before.from) >> 2),
  );
  const right = settled(
    after.from + Math.min(edge, (after.to - after.from) >> 2),
    Math.min(after.to, after.from + 3 * edge),
  );
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
        // Whether the tone stopped is seen in single hops: over a period of a low note its rest fills the hole.
        deepest = Math.max(deepest, reference - frames.hopDb[i]!);
        continue;
      }
      const length = (i - start) * hop;
      if (start >= 0 && length >= gap.seconds - BLUR && length <= LONGEST_GAP && deepest < STOPPED_DB) {
        return { startSeconds: start * hop, endSeconds: i * hop };
      }
      start = -1;
      deepest = 0;
    }
  }
  return null;
}

/** Mean power of a few hops around one, in dB: at least one period of the tone. */
export function hopMean(hopDb: Float32Array, at: number, count: number): number {
  let sum = 0;
  let n = 0;
  for (let i = Math.max(0, at - (count >> 1)); i < Math.min(hopDb.length, at - (count >> 1) + count); i++) {
    sum += 10 ** (hopDb[i]! / 10);
    n++;
  }
  return n ? 10 * Math.log10(sum / n) : NaN;
}
