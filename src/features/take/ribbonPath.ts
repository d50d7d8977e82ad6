import { area, curveBasis } from 'd3-shape';
import type { Note } from '@/core/hearing/notes';
import type { Trace } from '@/core/take';
import { thickness } from '@/ui';

/** What of a trace is drawn. */
export type DrawnTrace = Pick<Trace, 'stepSeconds' | 'pitchMidi' | 'levelDb'>;

export interface RibbonView {
  readonly width: number;
  readonly height: number;
  readonly fromSeconds: number;
  readonly toSeconds: number;
  /** Pitch at the middle of the height. */
  readonly middleMidi: number;
  readonly reachCents: number;
}

/** The thread of one note of a finished take as one filled shape: height is pitch, thickness level, holes are silence. */
export function ribbonPath(
  trace: DrawnTrace,
  note: Pick<Note, 'startSeconds' | 'endSeconds'>,
  view: RibbonView,
): string {
  const { width, height, fromSeconds, toSeconds, middleMidi, reachCents } = view;
  const { stepSeconds } = trace;
  const first = Math.max(0, Math.ceil(note.startSeconds / stepSeconds - 0.5));
  const end = Math.floor(note.endSeconds / stepSeconds - 0.5) + 1;
  const points = trace.pitchMidi.slice(first, end).map((pitch, i) => ({
    seconds: (first + i + 0.5) * stepSeconds,
    cents: pitch === null ? NaN : 100 * (pitch - middleMidi),
    half: (thickness(trace.levelDb[first + i] ?? -120) / 2) * Math.min(1, 0.6 + height / 230),
  }));
  const x = (seconds: number) => ((seconds - fromSeconds) / (toSeconds - fromSeconds)) * width;
  const y = (cents: number) =>
    height * (0.5 - Math.max(-reachCents, Math.min(reachCents, cents)) / (2 * reachCents));
  const shape = area<(typeof points)[number]>()
    .defined((point) => !Number.isNaN(point.cents))
    .x((point) => x(point.seconds))
    .y0((point) => y(point.cents) + point.half)
    .y1((point) => y(point.cents) - point.half)
    .curve(curveBasis);
  return shape(points) ?? '';
}
