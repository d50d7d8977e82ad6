import { median, quantile } from '@/core/base';
import { QUICK_PARTIALS, type Frames } from '@/core/hearing/signal';
import type { Decibels, Seconds } from '@/core/tuning';
import { hopMean } from './gaps';
import { isInPlace } from './isInPlace';
import type { Plateau, Replaced } from './plateaus';

/** Partials of a mode m times higher are every m-th of the note: the others fall against them by this, … */
const SHIFT_DB: Decibels = 7;
/** … and by so much more than they ever do beside it, … */
const OVER_USUAL = 3;
/** … while they themselves lose at least this, … */
const LOST_DB: Decibels = 5;
/** … and the sound as a whole no more than this. */
const PAUSE_DB: Decibels = 3.5;
/** Fainter than any sound: no partial was found. */
const NOTHING_DB: Decibels = -100;
/** It is coming, and going, while the balance is within this of its limit. */
const COMES_DB: Decibels = 3;
const SHORTEST: Seconds = 0.03;
const LONGEST: Seconds = 0.26;
/** At a note's ends the room is still filling, or emptying. */
const EDGE: Seconds = 0.08;
/** Frames before it that it is held against. */
const BESIDE = 14;
const MULTIPLES = [2, 3] as const;

/**
 * Moments in a held note in which a mode two or three times higher took its place while its echo kept its pitch: all that can be
 * found of them is that the partials which the mode lacks are left to the room.
 * @param modes pitches that could take the place of a note, MIDI numbers.
 */
export function hiddenModes(note: Plateau, modes: readonly number[], frames: Frames): Replaced[] {
  const hop = frames.hopSeconds;
  const edge = Math.round(EDGE / hop);
  const from = note.from + edge;
  const to = note.to - edge;
  if (to - from < 4 * edge) return [];
  return MULTIPLES.flatMap((m) => {
    const pitch = note.pitch + 12 * Math.log2(m);
    if (!modes.some((mode) => Math.abs(mode - pitch) < 0.5)) return [];
    const { balance, others } = balances(frames, from, to, m);
    const usual = median(balance);
    const usualOthers = median(others);
    const shared = balance.map((value, k) => value + others[k]!);
    const usualShared = median(shared);
    const spread = median(balance.map((value) => Math.abs(value - usual)));
    const limit = usual + Math.max(SHIFT_DB, OVER_USUAL * spread);
    const found: Replaced[] = [];
    for (let i = 0; i < balance.length; i++) {
      if (!(balance[i]! > limit)) continue;
      let end = i;
      while (end < balance.length && balance[end]! > limit) end++;
      const comes = balance.subarray(0, i).findLastIndex((value) => value <= limit - COMES_DB) + 1;
      const gone = balance.subarray(end).findIndex((value) => value <= limit - COMES_DB);
      const goes = gone < 0 ? balance.length : end + gone;
      const seconds = (goes - comes) * hop;
      const lost = usualOthers - median(others.subarray(i, end));
      const level = (a: number, b: number) =>
        quantile(
          Array.from({ length: b - a }, (_, k) => hopMean(frames.hopDb, a + k, 3)),
          0.3,
        );
      const sounding = median(shared.subarray(i, end));
      const earlier = comes > 2 ? median(shared.subarray(Math.max(0, comes - BESIDE), comes)) : usualShared;
      // What takes a note's place is as loud as it was: its own partials grow. Where they do not, echoes that cancel have only laid
      // bare what was there.
      const hasGrown = sounding < NOTHING_DB || sounding > Math.max(usualShared, earlier);
      const fell = level(from + i - BESIDE, from + i - 2) - level(from + i, from + end + 2);
      if (
        seconds >= SHORTEST &&
        seconds <= LONGEST &&
        // What does not go again is the next note.
        goes < balance.length &&
        lost >= LOST_DB &&
        hasGrown &&
        fell < PAUSE_DB &&
        isInPlace(frames, from + i, from + end)
      )
        found.push({
          from: from + comes,
          to: from + goes,
          pitch: Math.max(pitch, note.pitch + 12 * Math.log2(strongestPartial(frames, from + i, from + end))),
          joined: true,
          within: note,
        });
      i = end;
    }
    return found;
  });
}

/** Number of the partial that is strongest over most of some frames: all that is heard of a squeak that lies on it. */
export function strongestPartial({ quickPartials }: Frames, from: number, to: number): number {
  const times = new Uint16Array(QUICK_PARTIALS);
  for (let i = from; i < to; i++) {
    let top = 0;
    for (let k = 1; k < QUICK_PARTIALS; k++)
      if (quickPartials[i * QUICK_PARTIALS + k]! > quickPartials[i * QUICK_PARTIALS + top]!) top = k;
    times[top]!++;
  }
  return 1 + times.indexOf(Math.max(...times));
}

/** Every m-th partial against the others, and the others alone, in dB by frame. */
export function balances({ quickPartials }: Frames, from: number, to: number, m: number) {
  const balance = new Float64Array(Math.max(0, to - from));
  const others = new Float64Array(balance.length);
  for (let i = from; i < to; i++) {
    let shared = 1e-12;
    let rest = 1e-12;
    for (let k = 1; k <= QUICK_PARTIALS; k++) {
      const power = quickPartials[i * QUICK_PARTIALS + k - 1]! ** 2;
      if (k % m === 0) shared += power;
      else rest += power;
    }
    others[i - from] = 10 * Math.log10(rest);
    balance[i - from] = 10 * Math.log10(shared / rest);
  }
  return { balance, others };
}
