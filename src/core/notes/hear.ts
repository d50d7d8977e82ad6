import type { Instrument } from '@/core/instruments';
import type { Frames } from '@/core/signal';
import type { Decibels, Hertz } from '@/core/tuning';
import { measureNote } from './measure';
import type { Note, NoteEvent, PurityLimits } from './note';
import { segmentsOf, soundingLine } from './segments';

export interface Heard {
  readonly notes: Note[];
  readonly events: NoteEvent[];
  /** The room's own level: the quietest 5 % of what has no pitch. */
  readonly floorDb: Decibels;
}

export interface HearingOptions {
  /** Pitch standard. */
  readonly a4?: Hertz;
  readonly purity?: PurityLimits;
  /** The recording's gain was changed behind our back: levels say nothing about the player. */
  readonly gainControlled?: boolean;
}

/** From frames to notes: what was played, when, and how. */
export function hearNotes(frames: Frames, instrument: Instrument, options: HearingOptions = {}): Heard {
  const line = soundingLine(frames, options.a4 ?? 440);
  const notes = segmentsOf(line, frames.hopSeconds).map((segment) =>
    measureNote(frames, line, segment, instrument, options),
  );
  return { notes, events: [], floorDb: line.floorDb };
}
