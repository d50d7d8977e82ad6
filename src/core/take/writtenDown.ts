import { type Decibels, median, type Seconds } from '@/core/base';
import { writtenOf, writtenRange, type Instrument } from '@/core/instruments';
import { scoreNoteSchema, type Dynamic, type Score, type ScoreNote } from '@/core/music';
import type { Note, Transition } from '@/core/hearing/notes';

/** What is shorter is no note that was meant. */
const LEAST_NOTE: Seconds = 0.08;
/** A silence this long is a breath. */
const BREATH: Seconds = 0.4;
/**
 * Where the level falls by more than this between two notes they are taken for tongued: who was asked nothing may stop as they
 * like, and it is no hole.
 */
const STOP: Decibels = 9;
/** Further from the middle of the take than this is soft, or loud. */
const APART: Decibels = 6;

/**
 * Writes down what was heard: each note at its time, tongued or slurred, and as loud as it was beside the others. What can be told
 * of it is then told as of any other music.
 * @param score that was free.
 * @returns it in free time, a beat a second; without notes where none was heard.
 */
export function writtenDown(
  score: Score,
  instrument: Instrument,
  heard: { readonly notes: readonly Note[]; readonly transitions: readonly Transition[] },
): Score {
  const { low, high } = writtenRange(instrument);
  const slurred = new Set(
    heard.transitions.flatMap(({ to, dipDb }) => (dipDb !== null && dipDb < STOP ? [to] : [])),
  );
  const middle = median(heard.notes.flatMap(({ levelDb }) => levelDb ?? []));
  const loudness = (levelDb: number | null): Dynamic =>
    levelDb === null || Number.isNaN(middle) || Math.abs(levelDb - middle) <= APART
      ? 'mf'
      : levelDb > middle
        ? 'f'
        : 'p';
  const meant = heard.notes.flatMap((note, index) => {
    const written = writtenOf(instrument, note.soundingMidi);
    const fits = written >= low && written <= high && note.endSeconds - note.startSeconds >= LEAST_NOTE;
    return fits ? [{ note, index, written }] : [];
  });
  const start = meant[0]?.note.startSeconds ?? 0;
  const notes = meant.map(({ note, index, written }, i): ScoreNote => {
    const next = meant[i + 1]?.note;
    const silence = next ? next.startSeconds - note.endSeconds : 0;
    const until = next ? Math.min(note.endSeconds, next.startSeconds) : note.endSeconds;
    return scoreNoteSchema.parse({
      written,
      startBeat: note.startSeconds - start,
      beats: Math.max(0.02, until - note.startSeconds),
      attack: i > 0 && slurred.has(index) && meant[i - 1]!.index === index - 1 ? 'none' : 'tongued',
      dynamic: loudness(note.levelDb),
      breathAfter: silence > BREATH,
    });
  });
  return { ...score, tempo: null, countInBeats: 0, notes };
}
