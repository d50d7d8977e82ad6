import type { Note } from '@/core/hearing/notes';
import { findInstrument } from '@/core/instruments';
import { scoreOf, type Score } from '@/core/music';
import type { Beats } from '.';

export const flute = findInstrument('flute')!;
export const FREE: Beats = { secondsOf: null, beatSeconds: 1, notMusic: [] };
export const AT_60: Beats = {
  secondsOf: (beat) => beat,
  beatSeconds: 1,
  notMusic: [{ from: -Infinity, to: -0.6 }],
};

/** A row of notes, a beat each; a minus sign slurs to the note. */
export function row(...written: number[]): Score {
  return scoreOf({
    family: 'row',
    title: 'row',
    instrumentId: 'flute',
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'none',
    notes: written.map((note, i) => ({
      written: Math.abs(note),
      startBeat: i,
      beats: 1,
      attack: note < 0 ? 'none' : 'tongued',
      dynamic: 'mf',
    })),
  });
}

/** As much of a note as matching looks at. */
export const heard = (midi: number, startSeconds: number, endSeconds = startSeconds + 0.9): Note =>
  ({ soundingMidi: midi, startSeconds, endSeconds }) as Note;
