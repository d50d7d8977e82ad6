import * as z from 'zod';
import type { Semitones } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { movedKey, noteNumber } from '@/core/tuning';
import type { Score } from './score';

export const readAsSchema = z.object({
  /** Written for the instrument, or as it sounds. */
  pitch: z.enum(['written', 'sounding']),
  /** High phrases stay in the instrument's own clef. */
  oneClef: z.boolean(),
});
/** How a player wants to read music. */
export type ReadAs = z.infer<typeof readAsSchema>;

/** Whether what is written has another name than what sounds. */
export const isTransposing = ({ transposition }: Pick<Instrument, 'transposition'>): boolean =>
  transposition % 12 !== 0;

/** Sounding so much lower than it is written, an instrument that reads the treble clef needs the bass clef. */
const LOW: Semitones = -9;
const BASS = { clef: 'bass', upperClef: { clef: 'treble', from: noteNumber('C4') } } as const;

/**
 * Music as a player reads it, for the eye alone: as it sounds, with its keys moved along and in the clef that fits, and without
 * marks for the hand, which are about written notes; or in one clef throughout.
 */
export function asRead(
  score: Score,
  instrument: Instrument,
  { pitch, oneClef }: ReadAs,
): { score: Score; instrument: Instrument } {
  const own = oneClef ? { ...instrument, upperClef: undefined } : instrument;
  if (pitch === 'written' || !isTransposing(instrument)) return { score, instrument: own };
  const by = instrument.transposition;
  return {
    score: {
      ...score,
      fifths: movedKey(score.fifths, by),
      notes: score.notes.map((note) => ({
        ...note,
        written: note.written + by,
        fingered: note.fingered === null ? null : note.fingered + by,
        key: note.key === null ? null : movedKey(note.key, by),
        hand: null,
      })),
    },
    instrument: by <= LOW && own.clef === 'treble' ? { ...own, ...BASS } : own,
  };
}
