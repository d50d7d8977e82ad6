import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import type { Player } from '@/core/lab';
import { hearNotes } from '.';
import { framesOf, held, playIn, repeats, type Place } from './inRooms.testing';

const heardIn = (place: Place, id: string, player: Partial<Player>, seed = 41) => {
  const instrument = findInstrument(id);
  if (!instrument) throw new Error(id);
  const { audio, performance } = playIn(place, {
    score: held(instrument, seed),
    instrument,
    seed: 1,
    player,
  });
  return { truth: performance.notes, notes: hearNotes(framesOf(audio, instrument), instrument).notes };
};

test.each(
  thinned(
    [
      ['flute', 'living', 12],
      ['flute', 'living', 55],
      ['oboe', 'living', 30],
      ['bassoon', 'living', 20],
      ['clarinet-bb', 'bad', 35],
    ] as const,
    2,
  ),
)('the vibrato of a %s in a %s room of ±%d cents is as wide as it was played', (id, room, extentCents) => {
  const vibrato = { rateHz: 5.4, extentCents };
  const { truth, notes } = heardIn({ room, place: 2 }, id, { vibrato });
  expect(notes).toHaveLength(truth.length);
  for (const note of notes) {
    expect(Math.abs(note.vibrato!.rateHz - vibrato.rateHz)).toBeLessThan(0.15);
    expect(Math.abs(note.vibrato!.extentCents / extentCents - 1)).toBeLessThan(0.15);
    // What echoes make of a swing is not the player's wobble.
    expect(note.wobbleCents).toBeLessThan(4.5);
  }
});

test('a narrow vibrato whose level echoes swing is one note', () => {
  const { truth, notes } = heardIn(
    { room: 'living', place: 1 },
    'whistle-low-d',
    { vibrato: { rateHz: 4.66, extentCents: 15.5 } },
    50,
  );
  expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual(
    truth.map(({ soundingMidi }) => soundingMidi),
  );
});

test('repeated notes that are begun low are no vibrato', () => {
  const instrument = findInstrument('oboe')!;
  const { audio, performance } = playIn(
    { room: 'living', place: 1 },
    {
      score: repeats(instrument, 74, 4),
      instrument,
      seed: 1,
      player: { scoopCents: -25, riseSeconds: 0.02 },
    },
  );
  const { notes } = hearNotes(framesOf(audio, instrument), instrument);
  expect(notes).toHaveLength(performance.notes.length);
});
