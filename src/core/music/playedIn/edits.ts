import { scoreNoteSchema, type ScoreNote } from '../score';

/** What a player mends in a phrase; each makes a new row, and what comes after moves along. */
const laterBy = (notes: readonly ScoreNote[], from: number, by: number): ScoreNote[] =>
  notes.map((note, i) => (i >= from ? { ...note, startBeat: note.startBeat + by } : note));

/** Crotchets from the end of a note to the beginning of the next; 0 after the last. */
export function restAfter(notes: readonly ScoreNote[], at: number): number {
  const [note, next] = [notes[at], notes[at + 1]];
  return note && next ? Math.max(0, next.startBeat - note.startBeat - note.beats) : 0;
}

/** One note moved by semitones. */
export const withPitch = (notes: readonly ScoreNote[], at: number, by: number): ScoreNote[] =>
  notes.map((note, i) => (i === at ? { ...note, written: note.written + by } : note));

/** @param by crotchets; a note does not become shorter than `least`. */
export function withLength(notes: readonly ScoreNote[], at: number, by: number, least: number): ScoreNote[] {
  const note = notes[at]!;
  const beats = Math.max(least, note.beats + by);
  const moved = laterBy(notes, at + 1, beats - note.beats);
  return moved.map((each, i) => (i === at ? { ...each, beats } : each));
}

/** @param by crotchets of silence more, or fewer; a slur over a silence is none. */
export function withRest(notes: readonly ScoreNote[], at: number, by: number): ScoreNote[] {
  const moved = laterBy(notes, at + 1, Math.max(-restAfter(notes, at), by));
  return restAfter(moved, at) > 0
    ? moved.map((each, i) => (i === at + 1 ? { ...each, attack: 'tongued' as const } : each))
    : moved;
}

/** Slurred from the note before, or tongued; after a rest there is nothing to slur from. */
export const withSlur = (notes: readonly ScoreNote[], at: number): ScoreNote[] =>
  notes.map((note, i) =>
    i === at && i > 0 && restAfter(notes, i - 1) === 0
      ? { ...note, attack: note.attack === 'none' ? 'tongued' : 'none' }
      : note,
  );

/** Without one note: what follows moves up, and is tongued where nothing is left to slur from. */
export function without(notes: readonly ScoreNote[], at: number): ScoreNote[] {
  const [note, next] = [notes[at]!, notes[at + 1]];
  const left = notes.filter((_, i) => i !== at);
  const moved = next ? laterBy(left, at, note.startBeat - next.startBeat) : left;
  const isBegun = at === 0 || restAfter(moved, at - 1) > 0;
  return moved.map((each, i) => (i === at && isBegun ? { ...each, attack: 'tongued' } : each));
}

/** The same note once more, a crotchet long, after one. */
export function withOneAfter(notes: readonly ScoreNote[], at: number): ScoreNote[] {
  const note = notes[at]!;
  const one = scoreNoteSchema.parse({
    written: note.written,
    startBeat: note.startBeat + note.beats,
    beats: 1,
    attack: 'tongued',
    dynamic: note.dynamic,
  });
  const moved = laterBy(notes, at + 1, 1);
  return [...moved.slice(0, at + 1), one, ...moved.slice(at + 1)];
}
