import type { Seconds, Semitones } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Played } from './detours';
import { ECHOING_NOTES } from './echoes';
import { modeOfNote, otherModes } from './modes';
import type { NoteEvent } from './note';
import type { Scene } from './scene';
import { isTooSoft } from './toldDetours';
import { wrongBeginning, type WrongBeginning } from './wrongBeginning';
import { SHORTEST_NOTE, onePitchOf, type Plateau } from './plateau';

/** For so long the notes before it may still be heard. */
const ECHOES: Seconds = 0.6;
/** What was told as near to it is it, called otherwise. */
const SAME: Seconds = 0.05;
/** What is no longer than this before a note may be what the note's wrong beginning makes with an echo. */
const BRIEF: Seconds = 0.26;
/** And then it lies in that beginning, or the echo of it, by this share. */
const COVERED = 0.4;
/** Notes of a register as near as this speak alike. */
const SPEAKS_ALIKE: Semitones = 5;
/** How an instrument speaks is known from so many of them; until then what hardly stands is told, and what only shows is not. */
const FEWEST_ALIKE = { hardly: 4, shows: 1 } as const;

/**
 * Blips at the beginnings of notes in a room that rings, with the notes put where they begin. A wrong mode makes a period in common
 * with the echo of the note before, which may have been taken for a note of its own.
 */
export function withWrongBeginnings(
  { notes: found, events: told, faint: faintlyTold }: Played,
  scene: Scene,
): Played {
  const hop = scene.frames.hopSeconds;
  const notes: Plateau[] = [];
  let events = [...told];
  let faint = [...faintlyTold];
  const asked = beginningsOf(found, scene);
  for (const { note, wrong, swallowed } of asked) {
    if (!wrong) {
      notes.push(note);
      continue;
    }
    const isFault =
      wrong.told === 'stands' ||
      (wrong.told !== 'faint' && !isUsual(note, FEWEST_ALIKE[wrong.told], asked, scene.instrument));
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
      (isFault ? events : faint).push(blip);
    }
    const before = notes[notes.length - 1];
    const earliest = before ? before.from + Math.round(SHORTEST_NOTE / hop) : 0;
    // What does not stand may be how the note before it ends.
    const from = isFault || swallowed ? Math.min(note.from, Math.max(earliest, wrong.from)) : note.from;
    if (before && before.to > from) notes[notes.length - 1] = { ...before, to: from };
    notes.push({ ...note, from, joined: swallowed ? swallowed.joined : note.joined });
  }
  return { notes, events, faint };
}

/** A note, what else began it, and what that had been taken for. */
export interface Asked {
  readonly note: Plateau;
  /** Null where it began as it should, undefined where it is too soft to be told. */
  readonly wrong: WrongBeginning | null | undefined;
  readonly swallowed?: Plateau;
}

function beginningsOf(found: readonly Plateau[], { line, frames, instrument, a4 }: Scene): Asked[] {
  const hop = frames.hopSeconds;
  const asked: Asked[] = [];
  const beginningOf = (note: Plateau, before: readonly Asked[]) => {
    if (isTooSoft(note, line)) return undefined;
    const earlier = before
      .slice(-ECHOING_NOTES)
      .map((one) => one.note)
      .filter(({ to }) => (note.from - to) * hop < ECHOES);
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
    const last = asked[asked.length - 1]?.note;
    const isNext = last && (note.from - last.to) * hop < SAME;
    const brief = isNext && (last.to - last.from) * hop < BRIEF ? last : null;
    const instead = brief && beginningOf({ ...note, from: brief.from }, asked.slice(0, -1));
    if (brief && instead && isBlip(brief, instead)) {
      asked.pop();
      asked.push({ note, wrong: instead, swallowed: brief });
    } else asked.push({ note, wrong: beginningOf(note, asked) });
  }
  return asked;
}

/**
 * Whether more than half of the notes of a note's register that are near to it begin with another mode: then this is how the instrument
 * speaks there.
 * @param fewest such notes that tell it, this one among them.
 */
export function isUsual(
  note: Plateau,
  fewest: number,
  asked: readonly Asked[],
  instrument: Instrument,
): boolean {
  const register = modeOfNote(note.pitch, instrument);
  const alike = asked.filter(
    (one) =>
      one.wrong !== undefined &&
      Math.abs(one.note.pitch - note.pitch) <= SPEAKS_ALIKE &&
      modeOfNote(one.note.pitch, instrument) === register,
  );
  return alike.length >= fewest && 2 * alike.filter(({ wrong }) => wrong).length > alike.length;
}
