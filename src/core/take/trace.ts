import * as z from 'zod';
import { median } from 'd3-array';
import { type ColourId, COLOURS, FEATURES, type Hertz } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { hertzToMidi } from '@/core/tuning';

type TracedId = { [Id in ColourId]: (typeof FEATURES)[Id]['traced'] extends true ? Id : never }[ColourId];
/** Features of the spectrum that are drawn, or looked at, along the way. */
export const TRACED = COLOURS.filter((id): id is TracedId => FEATURES[id].traced);
/** Something for each traced feature, by its id. */
export const perTraced = <T>(of: (id: TracedId) => T): Record<TracedId, T> =>
  Object.fromEntries(TRACED.map((id) => [id, of(id)])) as Record<TracedId, T>;

/** The thread of a take, thinned for drawing: equal steps, null where there was no pitch. */
export const traceSchema = z.object({
  stepSeconds: z.number().positive(),
  pitchMidi: z.array(z.number().nullable()),
  levelDb: z.array(z.number()),
  ...perTraced(() => z.array(z.number().nullable()).default([])),
});
export type Trace = z.infer<typeof traceSchema>;

/** A trace never has more points than this, however long the take. */
const MOST_POINTS = 6000;
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
    ...perTraced(() => []),
  };
  for (let i = 0; i < frames.count; i += stride) {
    const pitch = median([...frames.f0.subarray(i, i + stride)].filter((_, k) => !frames.masked[i + k]));
    const known = (column: Float32Array, decimals: number) => {
      const value = median(column.subarray(i, i + stride));
      return value === undefined || Number.isNaN(value) ? null : rounded(value, decimals);
    };
    trace.pitchMidi.push(pitch !== undefined && pitch > 0 ? rounded(hertzToMidi(pitch, a4), 4) : null);
    trace.levelDb.push(rounded(median(frames.levelDb.subarray(i, i + stride)) ?? -120, 1));
    for (const id of TRACED) trace[id].push(known(frames[id], FEATURES[id].decimals + 1));
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
