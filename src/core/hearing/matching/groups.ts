import type { Midi } from '@/core/base';
import type { Score, ScoreNote } from '@/core/music';
import { soundingOf, type Instrument } from '@/core/instruments';

/** What is heard as one note: a note of the score, with those that go on at the same pitch under one slur. */
export interface Group {
  readonly index: number;
  /** First and last note of the score, both included. */
  readonly from: number;
  readonly to: number;
  readonly written: Midi;
  readonly sounding: Midi;
  readonly startBeat: number;
  readonly beats: number;
  /** Slurred to from the group before. */
  readonly slurred: boolean;
  /** Which breath it is played in. */
  readonly phrase: number;
}

/** Beats. A pause shorter than this between two notes is none: files round their lengths to ticks. */
const JOINED = 0.01;

const isNewPhrase = (before: ScoreNote, note: ScoreNote) =>
  before.breathAfter || note.startBeat - before.startBeat - before.beats > 0.25;

/** The notes of a score as they will be heard, in order. */
export function groupsOf(score: Pick<Score, 'notes'>, instrument: Instrument): Group[] {
  const groups: Group[] = [];
  let phrase = 0;
  score.notes.forEach((note, i) => {
    const before = score.notes[i - 1];
    const last = groups[groups.length - 1];
    const joined = before !== undefined && note.startBeat - before.startBeat - before.beats < JOINED;
    if (before && isNewPhrase(before, note)) phrase++;
    if (last && before && joined && note.attack === 'none' && note.written === before.written) {
      groups[groups.length - 1] = {
        ...last,
        to: i,
        beats: note.startBeat + note.beats - last.startBeat,
      };
      return;
    }
    groups.push({
      index: groups.length,
      from: i,
      to: i,
      written: note.written,
      sounding: soundingOf(instrument, note.written),
      startBeat: note.startBeat,
      beats: note.beats,
      slurred: note.attack === 'none' && before !== undefined,
      phrase,
    });
  });
  return groups;
}
