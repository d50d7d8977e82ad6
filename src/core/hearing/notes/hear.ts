import type { Hertz, Seconds } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { withWrongBeginnings } from './beginnings';
import { ringingSeconds } from './echoes';
import { separateDetours } from './detours';
import { RINGS, roomOf, type Room } from '@/core/hearing/room';
import { gapsBetween } from './gaps';
import { soundingLine } from './line';
import { loweredTo, putRight } from './lowered';
import { measureNote } from './measure';
import type { HearingOptions } from './hearing';
import type { Note, NoteEvent, Transition } from './note';
import { atItsOnset, onsetOver } from './onset';
import { plateausOf } from './plateaus';
import { replacementsIn } from './replacements';
import type { Scene } from './scene';
import { bridgeSqueaks } from './squeaks';
import { withoutTails } from './tails';
import { transitionsBetween } from './transitions';
import { isLost } from './lost';
import { liftUndertones, undertonesIn } from './undertones';
import { onePitchOf, type Plateau } from './plateau';

export interface Heard {
  readonly notes: Note[];
  readonly events: NoteEvent[];
  /** Between neighbouring notes that were joined. */
  readonly transitions: Transition[];
  readonly room: Room;
  /** The frames that were heard, with what the notes tell of them: a partial that was found in place of its tone is put down. */
  readonly frames: Frames;
}

/** Where no note ends freely the room may be any. */
const USUAL_DECAY: Seconds = 0.3;
const NOTHING_REPLACED = { replacements: [], doubts: [] } as const;
/** What ends no longer than this before a note begins happened on the way into it. */
const ON_THE_WAY: Seconds = 0.1;
/** From the first energy to the tone: later than this is late. */
const LATE_SPEECH_SECONDS = 0.06;

/** From frames to notes and events: what was played, when, and how. */
export function hearNotes(found: Frames, instrument: Instrument, options: HearingOptions = {}): Heard {
  const a4 = options.a4 ?? 440;
  const line = soundingLine(found, a4);
  const room = roomOf(found);
  const decay = room.decaySeconds ?? USUAL_DECAY;
  const rings = decay > RINGS;
  const { due = [] } = options;
  const scene: Scene = { line, frames: found, instrument, a4, decaySeconds: decay, rings, due };
  const { replacements, doubts } = rings ? replacementsIn(scene) : NOTHING_REPLACED;
  const squeaks = [...replacements, ...bridgeSqueaks(scene)];
  const pieces = plateausOf(scene, squeaks, doubts);
  const whole = withoutTails(pieces, line, found.hopSeconds, decay);
  const lowered = loweredTo(whole, scene);
  const frames = putRight(found, line);
  const right: Scene = { ...scene, frames };
  const separated = separateDetours(liftUndertones(lowered, right), squeaks, right);
  const played = rings && !options.company ? withWrongBeginnings(separated, right) : separated;
  const measured = played.notes.map((plateau, i) =>
    measureNote(frames, line, plateau, instrument, options, {
      before: follows(played.notes, i, frames) ? ringingSeconds(decay) : 0,
      after: rings ? ringingSeconds(decay) : 0,
      room: rings ? room : null,
    }),
  );
  const notes = measured.map((note, i) =>
    begunAtItsOnset(note, i, measured, played.notes, frames, instrument, decay, a4),
  );
  const inNote = (event: NoteEvent): NoteEvent => ({ ...event, noteIndex: noteAt(notes, event) });
  const faint = played.faint.map(inNote).filter((event) => !isLost(event, frames));
  const events = [
    ...played.events.map(inNote),
    // With company a second pitch below the note is no undertone.
    ...(options.company
      ? []
      : played.notes.flatMap((_, index) => undertonesIn(played.notes, index, played.events, right))),
    ...gapsBetween(played.notes, right),
    ...notes.flatMap((note, index) => faultsOf(note, index, options)),
  ];
  return {
    notes,
    events: events.filter((event) => !isLost(event, frames)).sort((a, b) => a.startSeconds - b.startSeconds),
    transitions: options.company
      ? []
      : transitionsBetween(played.notes, faint, right, !options.gainControlled),
    room,
    frames,
  };
}

/** Whether a note begins while the one before it may still ring. */
function follows(notes: readonly Plateau[], i: number, { hopSeconds }: Frames): boolean {
  const before = notes[i - 1];
  return before !== undefined && (notes[i]!.from - before.to) * hopSeconds < 0.5;
}

/** From silence by what finding a pitch takes; over an echo by the rise; slurred where the pitch changes. */
function begunAtItsOnset(
  note: Note,
  index: number,
  measured: readonly Note[],
  plateaus: readonly Plateau[],
  frames: Frames,
  instrument: Instrument,
  decaySeconds: Seconds,
  a4: Hertz,
): Note {
  const here = plateaus[index]!;
  const before = plateaus[index - 1];
  const near = before && (here.from - before.to) * frames.hopSeconds < ringingSeconds(decaySeconds);
  if (near && Math.abs(before.pitch - here.pitch) >= onePitchOf(instrument)) {
    const period = 1 / midiToHertz(Math.min(before.pitch, here.pitch), a4);
    const onset = onsetOver(before, here, frames, period, decaySeconds);
    if (onset !== null) {
      const startSeconds = frames.startSeconds + onset * frames.hopSeconds;
      return { ...note, startSeconds: Math.min(startSeconds, note.endSeconds) };
    }
  }
  return here.joined ? note : atItsOnset(note, measured[index - 1], frames.settings, a4);
}

/** The note an event happened in, or on the way into; null between notes. */
function noteAt(notes: readonly Note[], { startSeconds, endSeconds }: NoteEvent): number | null {
  const middle = (startSeconds + endSeconds) / 2;
  const index = notes.findIndex((note) => middle <= note.endSeconds);
  return index >= 0 && notes[index]!.startSeconds <= Math.max(middle, endSeconds + ON_THE_WAY) ? index : null;
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
