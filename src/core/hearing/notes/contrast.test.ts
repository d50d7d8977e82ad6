import fc from 'fast-check';
import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { hearNotes } from '.';
import { contrastOf } from './contrast';
import { framesOf, lines, playIn, PUT_IN } from './inRooms.testing';
import { ringingFrames, type Tone } from './ringing.testing';

const BASSOON = findInstrument('bassoon')!;
const OWN = [-12, -3, 0, -6, -9, -14, -18];
/** As loud as a whole. */
const OCTAVE = [0.5, -2.5, -10.5];
const FIRST: Tone = { midi: 57, from: 0.5, to: 1, partials: [0, -6, -12] };

const heard = (tones: readonly Tone[]) => {
  const { notes, events } = hearNotes(ringingFrames([FIRST, ...tones], BASSOON), BASSOON);
  return {
    notes: notes.slice(1).map(({ soundingMidi }) => soundingMidi),
    events: events.map(({ kind, soundingMidi }) => `${kind} ${soundingMidi}`),
  };
};

test('an octave that takes a low note’s place is a break in it, though the echo keeps its pitch', () => {
  for (const midi of thinned([45, 52, 50], 2))
    expect(
      heard([
        { midi, from: 1.5, to: 2.1, partials: OWN },
        { midi: midi + 12, from: 2.1, to: 2.2, partials: OCTAVE },
        { midi, from: 2.2, to: 2.8, partials: OWN },
      ]),
    ).toEqual({ notes: [midi], events: [`break ${midi + 12}`] });
});

/** Instrument, seed of the line, place in the living room, and when a note breaks into its octave over its own echo. */
const HIDDEN = [
  ['oboe', 313, 1, 8.107],
  ['oboe', 332, 3, 11.323],
  ['bassoon', 321, 2, 6.487],
  ['recorder-alto', 324, 2, 8.136],
  ['sax-alto', 313, 1, 4.073],
] as const;

test.each(thinned<(typeof HIDDEN)[number]>(HIDDEN, 2))(
  'an octave that a %s breaks into is told, though its echo has all partials of it (%i)',
  (id, seed, place, at) => {
    const instrument = findInstrument(id)!;
    const { performance, audio } = playIn({ room: 'living', place }, lines(instrument, seed, PUT_IN));
    const broken = performance.events.find(({ startSeconds }) => Math.abs(startSeconds - at) < 0.01)!;
    const { events } = hearNotes(framesOf(audio, instrument), instrument);
    const told = events.filter(({ startSeconds }) => Math.abs(startSeconds - at) < 0.05);
    expect(told.map(({ kind, soundingMidi }) => [kind, soundingMidi])).toEqual([
      ['break', broken.soundingMidi],
    ]);
  },
);

test('where nothing but the tongue was between them, two notes are two', () => {
  expect(
    heard([
      { midi: 52, from: 1.5, to: 2.1, partials: OWN },
      { midi: 52, from: 2.17, to: 2.8, partials: OWN },
    ]),
  ).toEqual({ notes: [52, 52], events: [] });
});

describe('a mode among the partials of a note', () => {
  /** A note, what is left of it in a room while something else sounds, and the same note again: dB of partials 1 to 8. */
  const NOTE = [-20, -26, -28, -31, -36, -38, -42, -45];
  const powers = (levels: readonly number[]) => Float64Array.from(levels, (dB) => 10 ** (dB / 10));
  const changed = (by: (partial: number) => number) => powers(NOTE.map((dB, k) => dB + by(k + 1)));
  const found = (multiples: readonly number[], by: (partial: number) => number) =>
    contrastOf(multiples, powers(NOTE), changed(by), powers(NOTE));

  it('stands out by what the others fall and its own grow', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(2, 3, 4),
        fc.integer({ min: 6, max: 9 }),
        fc.integer({ min: 0, max: 6 }),
        (multiple, falls, grows) => {
          const contrast = found([2, 3, 4], (partial) => (partial % multiple === 0 ? grows : -falls))!;
          expect(contrast.multiple).toBe(multiple);
          expect(contrast.standsOut).toBeCloseTo(falls + grows, 1);
          expect(contrast.othersFall).toBeCloseTo(falls, 1);
          expect(contrast.ownGrow).toBeCloseTo(grows, 1);
        },
      ),
    );
  });

  it('is none where all partials rise and fall together: someone played louder', () => {
    fc.assert(
      fc.property(fc.integer({ min: -10, max: 10 }), (by) => {
        expect(found([2, 3], () => by)!.standsOut).toBeCloseTo(0, 6);
      }),
    );
  });

  it('is none where what has changed stays so: it is the next note', () => {
    const octave = changed((partial) => (partial % 2 === 0 ? 3 : -8));
    expect(contrastOf([2], powers(NOTE), octave, octave)!.standsOut).toBeLessThanOrEqual(0);
  });

  it('is not told of where no partial has a voice on one of the sides', () => {
    const alone = powers(NOTE).fill(NaN, 1);
    expect(contrastOf([2, 3], alone, alone, alone)).toBeNull();
  });
});
