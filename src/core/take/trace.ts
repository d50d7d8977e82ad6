import { median } from 'd3-array';
import type { Frames } from '@/core/signal';
import { hertzToMidi, type Hertz } from '@/core/tuning';
import type { Trace } from './take';

/** A trace never has more points than this, however long the take. */
const MOST_POINTS = 3000;
const FINEST_STEP = 0.03;

const rounded = (value: number, decimals: number) => Math.round(value * 10 ** decimals) / 10 ** decimals;

/** Thins frames to steps of at least 30 ms by their medians. */
export function traceOf(frames: Frames, a4: Hertz): Trace {
  const duration = frames.count * frames.hopSeconds;
  const stride = Math.max(1, Math.round(Math.max(FINEST_STEP, duration / MOST_POINTS) / frames.hopSeconds));
  const trace: Trace = {
    stepSeconds: stride * frames.hopSeconds,
    pitchMidi: [],
    levelDb: [],
    airinessDb: [],
  };
  for (let i = 0; i < frames.count; i += stride) {
    const pitch = median([...frames.f0.subarray(i, i + stride)].filter((_, k) => !frames.masked[i + k]));
    const air = median(frames.airinessDb.subarray(i, i + stride));
    trace.pitchMidi.push(pitch !== undefined && pitch > 0 ? rounded(hertzToMidi(pitch, a4), 4) : null);
    trace.levelDb.push(rounded(median(frames.levelDb.subarray(i, i + stride)) ?? -120, 1));
    trace.airinessDb.push(air === undefined || Number.isNaN(air) ? null : rounded(air, 1));
  }
  bridge(trace.pitchMidi, (i) => frames.masked[Math.min(frames.count - 1, i * stride)] === 1);
  return trace;
}

/** Draws a straight line where only a click hid the pitch. */
function bridge(pitch: (number | null)[], hidden: (index: number) => boolean): void {
  for (let i = 1; i < pitch.length; i++) {
    if (pitch[i] !== null || !hidden(i)) continue;
    let to = i;
    while (to < pitch.length && pitch[to] === null && hidden(to)) to++;
    const before = pitch[i - 1];
    const after = pitch[to];
    if (before == null || after == null) continue;
    for (let k = i; k < to; k++)
      pitch[k] = rounded(before + ((after - before) * (k - i + 1)) / (to - i + 1), 4);
  }
}
