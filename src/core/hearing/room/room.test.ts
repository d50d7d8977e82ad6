import { findInstrument } from '@/core/instruments';
import { framesOf, lines, playIn, type Place } from '@/core/hearing/notes/inRooms.testing';
import { roomOf } from '.';

const soundOf = (place: Place, id: string) =>
  roomOf(framesOf(playIn(place, lines(findInstrument(id)!, 40 + place.place)).audio, findInstrument(id)!));

describe.each([
  ['flute', [1, 3]],
  ['bassoon', [2, 1]],
  ['clarinet-bb', [3, 2]],
])('what is played on the %s tells of its room', (id, places) => {
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
