import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { framesOf, lines, playIn, type Place } from '@/core/hearing/notes/inRooms.testing';
import { roomOf, swingLeft } from '.';

const soundOf = (place: Place, id: string) =>
  roomOf(framesOf(playIn(place, lines(findInstrument(id)!, 40 + place.place)).audio, findInstrument(id)!));

describe.each(
  thinned<[string, number[]]>(
    [
      ['flute', thinned([1, 3], 1)],
      ['bassoon', thinned([2, 1], 1)],
      ['clarinet-bb', thinned([3, 2], 1)],
    ],
    2,
  ),
)('what is played on the %s tells of its room', (id, places) => {
  it('nothing rings in a dry recording', () => {
    const { decaySeconds, spreadDb } = soundOf({ room: null, place: 1 }, id);
    expect(decaySeconds).toBeLessThan(0.12);
    expect(spreadDb).toBeLessThan(0.8);
  });

  it.each(places)('its decay and how much echoes change the level (place %i)', (place) => {
    const living = soundOf({ room: 'living', place }, id);
    expect(living.decaySeconds).toBeGreaterThan(0.17);
    expect(living.decaySeconds).toBeLessThan(0.6);
    expect(living.spreadDb).toBeGreaterThan(1.5);
    expect(living.spreadDb).toBeLessThan(5.6);
    expect(soundOf({ room: 'bad', place }, id).decaySeconds).toBeGreaterThan(0.25);
  });
});

it('does not take a tone that shakes for a room that rings', () => {
  const playing = { ...lines(findInstrument('flute')!, 3), player: { levelWobbleDb: 1.5 } };
  const { decaySeconds } = roomOf(
    framesOf(playIn({ room: null, place: 1 }, playing).audio, playing.instrument),
  );
  expect(decaySeconds).toBeLessThan(0.12);
});

it('does not take a soft end, which is soon in the noise, for a room that rings', () => {
  const instrument = findInstrument('clarinet-bb')!;
  const playing = { score: scoreOfFamily('pulses', 'clarinet-bb'), instrument, seed: 1 };
  const { decaySeconds } = roomOf(framesOf(playIn({ room: null, place: 1 }, playing).audio, instrument));
  expect(decaySeconds).toBeLessThan(0.11);
});

describe('what a room leaves of a swing of the pitch', () => {
  it('is all of it where nothing rings, or where nothing is known', () => {
    expect(swingLeft({ decaySeconds: 0.08, spreadDb: 0.5 }, 5)).toBe(1);
    expect(swingLeft({ decaySeconds: null, spreadDb: null }, 5)).toBe(1);
  });

  it('is what a direct and a lagging swing give together', () => {
    // A third of the energy in the echoes: 1 − s + s/(1 + j) at ωT/13.8 = 1.
    const rate = 13.8 / (2 * Math.PI * 0.4);
    const spreadDb = 4.34 * Math.sqrt((2 / 3) * 1 - 1 / 9);
    expect(swingLeft({ decaySeconds: 0.4, spreadDb }, rate)).toBeCloseTo(Math.hypot(5 / 6, 1 / 6), 3);
  });

  it('is less the faster it is and the longer it rings, and never less than the direct sound brings', () => {
    const left = (decaySeconds: number, rate: number) => swingLeft({ decaySeconds, spreadDb: 3.5 }, rate);
    expect(left(0.4, 7)).toBeLessThan(left(0.4, 4));
    expect(left(0.6, 5)).toBeLessThan(left(0.3, 5));
    expect(left(2, 8)).toBeGreaterThan(0.5);
  });
});
