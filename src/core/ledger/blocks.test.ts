import * as fc from 'fast-check';
import { blocksIn } from '.';
import { rowOf } from './memory.testing';

const MINUTE = 1 / 1440;
const at = (minutes: number, part = {}) => rowOf(minutes * MINUTE, { id: `at ${minutes}`, ...part });
const idsOf = (rows: Parameters<typeof blocksIn>[0]) =>
  blocksIn(rows).map(({ entries }) => entries.map(({ id }) => id));

it('brings together what was played in one go, newest first or oldest first', () => {
  const rows = [
    at(0),
    at(2),
    at(5, { family: 'tapers', title: 'Tapers' }),
    at(7),
    // Twenty minutes after the end of the one before, which lasted one.
    at(28.5),
    at(30, { instrumentId: 'piccolo' }),
  ];
  const blocks = [['at 0', 'at 2'], ['at 5'], ['at 7'], ['at 28.5'], ['at 30']];
  expect(idsOf(rows)).toEqual(blocks);
  expect(idsOf([...rows].reverse())).toEqual(blocks.map((each) => [...each].reverse()).reverse());
  expect(blocksIn(rows)[0]!.seconds).toBe(120);
});

it('keeps every row once and in its order', () => {
  const families = fc.constantFrom('octave-slurs', 'tapers');
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 60 }), families)), (steps) => {
      let minutes = 0;
      const rows = steps.map(([step, family]) => at((minutes += step), { family }));
      expect(blocksIn(rows).flatMap(({ entries }) => entries)).toEqual(rows);
    }),
  );
});
