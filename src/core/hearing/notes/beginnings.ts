import type { Seconds } from '@/core/tuning';
import { levelOf, OVER_FLOOR_DB, SHORTEST_NOTE, type Played } from './detours';
import { ECHOING_NOTES } from './echoes';
import { otherModes } from './modes';
import type { NoteEvent } from './note';
import { onePitchOf, type Plateau } from './plateaus';
import type { Scene } from './scene';
import { wrongBeginning, type WrongBeginning } from './wrongBeginning';

/** For so long the notes before it may still be heard. */
const ECHOES: Seconds = 0.6;
/** What was told as near to it is it, called otherwise. */
const SAME: Seconds = 0.05;
/** What is no longer than this before a note may be what the note's wrong beginning makes with an echo. */
const BRIEF: Seconds = 0.26;
/** And then it lies in that beginning, or the echo of it, by this share. */
const COVERED = 0.4;

/**
 * Blips at the beginnings of notes in a room that rings, with the notes put where they begin. A wrong mode makes a period in common
 * with the echo of the note before, which may have been taken for a note of its own.
 */
export function withWrongBeginnings(
  { notes: found, events: told, faint: faintlyTold }: Played,
  { line, frames, instrument, a4 }: Scene,
): Played {
  const hop = frames.hopSeconds;
  const notes: Plateau[] = [];
  let events = [...told];
  let faint = [...faintlyTold];
  const beginningOf = (note: Plateau, before: readonly Plateau[]) => {
    if (levelOf(line, note) < line.floorDb + OVER_FLOOR_DB) return null;
    const earlier = before.slice(-ECHOING_NOTES).filter(({ to }) => (note.from - to) * hop < ECHOES);
    const modes = otherModes(note.pitch, instrument).filter((mode) =>
      earlier.every(({ pitch }) => Math.abs(pitch - mode) >= onePitchOf(instrument)),
    );
    return wrongBeginning(note, earlier, modes, frames, a4);
  };
  const isBlip = (brief: Plateau, wrong: WrongBeginning) =>
    (brief.to - brief.from) * hop < BRIEF &&
    Math.min(brief.to, wrong.to) - Math.max(brief.from, wrong.from) >=
      COVERED * Math.min(brief.to - brief.from, wrong.to - wrong.from);
  for (const note of found) {
    const last = notes[notes.length - 1];
    const isNext = last && (note.from - last.to) * hop < SAME;
    const brief = isNext && (last.to - last.from) * hop < BRIEF ? last : null;
    const instead = brief && beginningOf({ ...note, from: brief.from }, notes.slice(0, -1));
    const swallows = brief && instead && isBlip(brief, instead);
    if (swallows) notes.pop();
    const wrong = swallows ? instead : beginningOf(note, notes);
    if (!wrong) {
      notes.push(note);
      continue;
    }
    const blip: NoteEvent = {
      kind: 'blip',
      startSeconds: wrong.from * hop,
      endSeconds: wrong.to * hop,
      soundingMidi: Math.round(wrong.pitch),
      noteIndex: null,
      confidence: Math.min(1, 0.6 + (wrong.to - wrong.from) * hop * 4),
    };
    const overlaps = (event: NoteEvent) =>
      event.startSeconds < blip.endSeconds + SAME && event.endSeconds > blip.startSeconds - SAME;
    // What was told of the same moment by another name is this beginning.
    if (!events.some((event) => event.kind === 'blip' && overlaps(event))) {
      events = events.filter((event) => !overlaps(event));
      faint = faint.filter((event) => !overlaps(event));
      (wrong.stands ? events : faint).push(blip);
    }
    const before = notes[notes.length - 1];
    const earliest = before ? before.from + Math.round(SHORTEST_NOTE / hop) : 0;
    // What does not stand may be how the note before it ends.
    const from = wrong.stands || swallows ? Math.min(note.from, Math.max(earliest, wrong.from)) : note.from;
    if (before && before.to > from) notes[notes.length - 1] = { ...before, to: from };
    notes.push({ ...note, from, joined: swallows ? brief.joined : note.joined });
  }
  return { notes, events, faint };
}
