import * as fc from 'fast-check';
import { inStep, likeliest, type Start } from './inStep';

const start = (at: number, odds: number): Start => ({ stop: at - 6, at, odds });

test('starts that come in step are believed together, though none would be alone', () => {
  const regular = [30, 61, 90, 121, 150].map((at) => start(at, 1));
  const withStray = [...regular.slice(0, 2), start(75, 0.5), ...regular.slice(2)];
  expect(inStep(0, withStray, 18).map(({ at }) => at)).toEqual([30, 61, 90, 121, 150]);
});

test('a doubtful one is carried by its neighbours, and one that is missing counts against all', () => {
  const doubtful = [start(30, 2.5), start(60, -2), start(90, 2.5), start(120, 2.5)];
  expect(inStep(0, doubtful, 18)).toHaveLength(4);
  const missing = [start(30, 1.5), start(90, 1.5), start(120, 1.5)];
  expect(inStep(0, missing, 18)).toEqual([]);
});

test('a long note among quick ones stays whole: what is not there at all is no start', () => {
  const quick = [start(60, 3), start(90, 3), start(120, 3), start(150, 3), start(180, 3)];
  const long = [start(30, -4.9), ...quick];
  expect(inStep(0, long, 18).map(({ at }) => at)).toEqual([60, 90, 120, 150, 180]);
});

test('no step is found where starts are few or far from regular', () => {
  expect(inStep(0, [start(30, 3), start(60, 3)], 18)).toEqual([]);
  expect(inStep(0, [start(22, 1), start(61, 1), start(80, 1), start(133, 1)], 18)).toEqual([]);
});

test('whatever is found comes in step, in the order of time, and adds up', () => {
  const someStarts = fc
    .uniqueArray(fc.integer({ min: 10, max: 300 }), { minLength: 1, maxLength: 20 })
    .chain((places) =>
      fc
        .array(fc.double({ min: -8, max: 5, noNaN: true }), {
          minLength: places.length,
          maxLength: places.length,
        })
        .map((odds) => places.sort((a, b) => a - b).map((at, i) => start(at, odds[i]!))),
    );
  fc.assert(
    fc.property(someStarts, (starts) => {
      const found = inStep(0, starts, 18);
      expect(starts).toEqual(expect.arrayContaining(found));
      const steps = found.slice(1).map(({ at }, i) => at - found[i]!.at);
      // A note may be missing here and there, but none is nearer than a step.
      for (const step of steps) expect(step).toBeGreaterThan(0.8 * 18);
    }),
  );
});

test('notes that come as regularly as they can are found, even where each is doubtful by itself', () => {
  fc.assert(
    fc.property(fc.integer({ min: 20, max: 60 }), fc.integer({ min: 5, max: 9 }), (step, count) => {
      const row = Array.from({ length: count }, (_, i) => start(step * (i + 1), -1));
      expect(inStep(0, row, 18)).toHaveLength(count);
    }),
  );
});

test('of starts that are too near to each other the likeliest stays', () => {
  const kept = likeliest([start(30, 1), start(40, 3), start(70, 2)], 18);
  expect(kept.map(({ at }) => at)).toEqual([40, 70]);
});
