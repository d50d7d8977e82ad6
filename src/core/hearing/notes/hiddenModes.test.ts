import { findInstrument } from '@/core/instruments';
import { hearNotes } from '.';
import { ringingFrames, type Tone } from './ringing.testing';

const BASSOON = findInstrument('bassoon')!;
const OWN = [-12, -3, 0, -6, -9, -14, -18];
const OCTAVE = [-3, -6, -14];
const FIRST: Tone = { midi: 57, from: 0.5, to: 1, partials: [0, -6, -12] };

const heard = (tones: readonly Tone[]) => {
  const { notes, events } = hearNotes(ringingFrames([FIRST, ...tones], BASSOON), BASSOON);
  return {
    notes: notes.slice(1).map(({ soundingMidi }) => soundingMidi),
    events: events.map(({ kind, soundingMidi }) => `${kind} ${soundingMidi}`),
  };
};

test('an octave that takes a low note’s place is a break in it, though the echo keeps its pitch', () => {
  for (const midi of [45, 50, 52])
    expect(
      heard([
        { midi, from: 1.5, to: 2.1, partials: OWN },
        { midi: midi + 12, from: 2.1, to: 2.2, partials: OCTAVE },
        { midi, from: 2.2, to: 2.8, partials: OWN },
      ]),
    ).toEqual({ notes: [midi], events: [`break ${midi + 12}`] });
});

test('where nothing but the tongue was between them, two notes are two', () => {
  expect(
    heard([
      { midi: 52, from: 1.5, to: 2.1, partials: OWN },
      { midi: 52, from: 2.17, to: 2.8, partials: OWN },
    ]),
  ).toEqual({ notes: [52, 52], events: [] });
});
