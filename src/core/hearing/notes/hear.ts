import type { Instrument } from '@/core/instruments';
import type { Frames } from '@/core/hearing/signal';
import type { Decibels } from '@/core/tuning';
import { separateDetours } from './detours';
import { gapsBetween } from './gaps';
import { soundingLine } from './line';
import { measureNote } from './measure';
import type { HearingOptions } from './hearing';
import type { Note, NoteEvent, Transition } from './note';
import { atItsOnset } from './onset';
import { plateausOf } from './plateaus';
import { transitionsBetween } from './transitions';
import { liftUndertones, undertonesIn } from './undertones';

export interface Heard {
  readonly notes: Note[];
  readonly events: NoteEvent[];
  /** Between neighbouring notes that were joined. */
  readonly transitions: Transition[];
  /** The room's own level: the quietest 5 % of what has no pitch. */
  readonly floorDb: Decibels;
}

/** From the first energy to the tone: later than this is late. */
const LATE_SPEECH_SECONDS = 0.06;

/** From frames to notes and events: what was played, when, and how. */
export function hearNotes(frames: Frames, instrument: Instrument, options: HearingOptions = {}): Heard {
  const a4 = options.a4 ?? 440;
  const line = soundingLine(frames, a4);
  const plateaus = liftUndertones(plateausOf(line, frames.hopSeconds), line, frames, instrument);
  const played = separateDetours(plateaus, line, frames.hopSeconds, instrument, a4);
  const found = played.notes.map((plateau) => measureNote(frames, line, plateau, instrument, options));
  const notes = found.map((note, i) =>
    played.notes[i]!.joined ? note : atItsOnset(note, found[i - 1], frames.settings, a4),
  );
  const events = [
    ...played.events.map((event) => ({ ...event, noteIndex: noteAt(notes, event) })),
    // With company a second pitch below the note is no undertone.
    ...(options.company
      ? []
      : played.notes.flatMap((plateau, index) => undertonesIn(plateau, index, line, frames, instrument, a4))),
    ...gapsBetween(played.notes, frames, a4),
    ...notes.flatMap((note, index) => faultsOf(note, index, options)),
  ];
  return {
    notes,
    events: events.sort((a, b) => a.startSeconds - b.startSeconds),
    transitions: options.company
      ? []
      : transitionsBetween(played.notes, line, frames, a4, !options.gainControlled),
    floorDb: line.floorDb,
  };
}

function noteAt(notes: readonly Note[], event: NoteEvent): number | null {
  const middle = (event.startSeconds + event.endSeconds) / 2;
  const index = notes.findIndex((note) => note.startSeconds <= middle && middle <= note.endSeconds);
  return index < 0 ? null : index;
}

/** Events that follow from a note's own figures. */
function faultsOf(note: Note, noteIndex: number, options: HearingOptions): NoteEvent[] {
  const { startSeconds, endSeconds, soundingMidi, attack } = note;
  const events: NoteEvent[] = [];
  if (attack.speechSeconds !== null && attack.speechSeconds > LATE_SPEECH_SECONDS) {
    const from = startSeconds - attack.speechSeconds;
    events.push({
      kind: 'late-speech',
      startSeconds: from,
      endSeconds: startSeconds,
      soundingMidi,
      noteIndex,
      confidence: 0.7,
    });
  }
  if (note.vibrato && options.purity?.vibratoAllowed === false) {
    events.push({
      kind: 'vibrato-unwanted',
      startSeconds,
      endSeconds,
      soundingMidi,
      noteIndex,
      confidence: 0.8,
    });
  }
  return events;
}
