import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { playerFor, type Player } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import { judge, limitsOf } from '.';
import { faultlessIn } from './rooms.testing';
import { beginning, OFTEN_ENOUGH } from './truth.testing';

// `npm run bench -- rooms --what=families` counts all families, instruments and places.
test.each(
  thinned(
    [
      ['recorder-alto', 'subdivision-ladder', 2],
      ['oboe', 'subdivision-ladder', 2],
      ['clarinet-bb', 'octave-slurs', 1],
      // A scale that turns: the note before the last rings on under the same note.
      ['clarinet-bb', 'roaming-scale', 1],
      ['flute', 'long-tone', 3],
      // Tongued again: its own echo swells before it.
      ['flute', 'three-note-groups', 1],
      // Slurred up an octave: the note hides in the echo, and shows by its partials first.
      ['sax-alto', 'octave-slurs', 3],
      // Slurred by a step: the note repeats itself every third period as it begins.
      ['bassoon', 'eight-ways', 1],
      ['bassoon', 'roaming-scale', 2],
      ['bassoon', 'harmonic-climb', 2],
      ['bassoon', 'altissimo-pairs', 3],
      // The stop between two tongued notes: one partial of the echo outlasts the others, and all go on falling.
      ['oboe', 'subdivision-ladder', 4],
      // After the last note one partial rings on alone for a moment.
      ['oboe', 'on-the-day', 6],
      // Surges of air: the note grows in all its partials.
      ['bassoon', 'pulses', 4],
      // A note in a node: echoes of others pull at its pitch, at its level, and cut a pure hold short.
      ['recorder-alto', 'long-hold', 4],
      ['recorder-alto', 'long-hold', 5],
      ['sax-alto', 'three-note-groups', 5],
      // Very soft and low, in the noise of the house.
      ['recorder-alto', 'dynamic-window', 4],
    ] as const,
    3,
  ),
)('a faultless %s is told of no fault in %s in a living room (place %d)', (id, familyId, place) => {
  const report = faultlessIn('living', [place], [findInstrument(id)!], [findFamily(familyId)!], OFTEN_ENOUGH);
  expect(report.takes).toBe(1);
  expect(report.wrong).toEqual([]);
});

test.each(
  thinned(
    [
      ['flute', 'tendency-scan', null],
      ['oboe', 'octave-slurs', null],
      ['flute', 'roaming-scale', 'living'],
      ['flute', 'long-hold', 'living'],
    ] as const,
    2,
  ),
)(
  'a faultless %s that swings where vibrato is wanted is told of no fault in %s (%s)',
  (id, familyId, room) => {
    const report = faultlessIn(room, [1], [findInstrument(id)!], [findFamily(familyId)!], OFTEN_ENOUGH, {
      vibrato: 'wanted',
    });
    expect(report.takes).toBe(1);
    expect(report.wrong).toEqual([]);
  },
);

const readIn = (
  id: string,
  familyId: string,
  set: Readonly<Record<string, unknown>>,
  place: number,
  faulty: Partial<Player> = {},
) => {
  const instrument = findInstrument(id)!;
  const score = beginning(findFamily(familyId)!, instrument, OFTEN_ENOUGH, set)!;
  const { take } = sharedTake({
    score,
    instrument,
    seed: place,
    player: { ...playerFor(score), ...faulty },
    heardIn: { room: 'living', place },
  });
  return judge(take, limitsOf('steady')).figures;
};

test('the noise of a bad room under a clarinet that fades is no undertone', () => {
  const instrument = findInstrument('clarinet-bb')!;
  const score = beginning(findFamily('swells')!, instrument, OFTEN_ENOUGH, { range: { low: 71, high: 72 } })!;
  const heardIn = { room: 'bad', place: 3 } as const;
  const { take } = sharedTake({ score, instrument, seed: 3, player: playerFor(score), heardIn });
  expect(take.notes.length).toBeGreaterThan(0);
  expect(take.events).toEqual([]);
});

test('no step of a ladder is called the hardest for an onset that the room blurs', () => {
  for (const place of thinned([1, 2], 1)) {
    const hardest = readIn('oboe', 'subdivision-ladder', {}, place).find(({ id }) => id === 'hardest-step')!;
    expect(hardest).toHaveProperty('unknown');
  }
});

test('a hairpin over several notes is not told to turn where the room does', () => {
  const turns = readIn('oboe', 'reversed-dynamics', {}, 2).filter(({ id }) => id === 'turns');
  expect(turns.length).toBeGreaterThan(1);
  for (const each of turns)
    expect('unknown' in each ? each.unknown : each.value).toBe('unknown' in each ? 'room' : 0);
});

describe('loudness in a living room', () => {
  const lineOf = (
    id: string,
    familyId: string,
    line: 'level-wobble' | 'level-spread',
    set: Readonly<Record<string, unknown>>,
    place: number,
    unevenDb?: number,
  ) => {
    const faulty = unevenDb === undefined ? {} : { levelWobbleDb: unevenDb };
    return readIn(id, familyId, set, place, faulty).find((each) => each.id === line && each.at === null)!;
  };

  test('that swings with the vibrato alone is not called uneven', () => {
    for (const id of thinned(['flute', 'clarinet-bb', 'oboe'], 2))
      for (const place of thinned([1, 2], 1))
        expect(lineOf(id, 'long-tone', 'level-wobble', { vibrato: 'wanted' }, place)).toMatchObject({
          unknown: 'room',
        });
  });

  test('of a tone without vibrato is known, and so is that it shook', () => {
    const still = lineOf('oboe', 'long-tone', 'level-wobble', {}, 1);
    const shaken = lineOf('oboe', 'long-tone', 'level-wobble', {}, 1, 2.5);
    expect(still).toHaveProperty('value');
    expect('value' in still && still.value).toBeLessThan(0.7);
    expect('value' in shaken && shaken.value).toBeGreaterThan(1.5);
  });

  test('from note to note is unknown where the room makes notes differ by as much', () => {
    expect(lineOf('clarinet-bb', 'octave-slurs', 'level-spread', {}, 1)).toMatchObject({ unknown: 'room' });
  });
});
