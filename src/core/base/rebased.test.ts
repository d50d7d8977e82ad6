import fc from 'fast-check';
import { rebased, takenBack } from './rebased';

describe('a change that is made to another state', () => {
  it('leaves what it did not touch: entries of records, items of lists', () => {
    const before = { a4: 440, exercises: { scale: { tempo: 60 } }, own: [{ id: 'x' }], atHand: ['scale'] };
    const here = {
      ...before,
      exercises: { ...before.exercises, slurs: { tempo: 72 } },
      atHand: ['scale', 'slurs'],
    };
    const there = {
      a4: 442,
      exercises: { scale: { tempo: 66, low: 60 } },
      own: [{ id: 'x' }, { id: 'y' }],
      atHand: [],
    };
    expect(rebased(before, here, there)).toEqual({
      a4: 442,
      exercises: { scale: { tempo: 66, low: 60 }, slurs: { tempo: 72 } },
      own: [{ id: 'x' }, { id: 'y' }],
      atHand: ['slurs'],
    });
  });

  it('wins where both changed the same', () => {
    expect(rebased({ a4: 440 }, { a4: 441 }, { a4: 442 })).toEqual({ a4: 441 });
  });

  const state = fc.dictionary(
    fc.constantFrom('a', 'b', 'c'),
    fc.oneof(
      fc.integer({ min: 0, max: 3 }),
      fc.dictionary(fc.constantFrom('x', 'y'), fc.integer({ min: 0, max: 3 })),
      fc.uniqueArray(fc.constantFrom('p', 'q', 'r')),
    ),
  );

  it('is the change itself where nothing else happened, and nothing where it was none', () => {
    fc.assert(
      fc.property(state, state, (from, to) => {
        expect(rebased(from, to, from)).toEqual(to);
        expect(rebased(from, from, to)).toEqual(to);
      }),
    );
  });

  it('taken back leaves what came after it', () => {
    expect(takenBack({ a4: 440 }, { a4: 442 }, { a4: 441 })).toEqual({ a4: 441 });
    expect(takenBack({ own: ['a'] }, { own: ['a', 'b'] }, { own: ['b', 'c'] })).toEqual({ own: ['c'] });
    const change = (value: Record<string, unknown>) => ({ ...value, imported: [1] });
    fc.assert(
      fc.property(state, state, (before, after) => {
        expect(takenBack<unknown>(before, change(before), change(after))).toEqual(after);
        expect(takenBack(before, after, after)).toEqual(before);
      }),
    );
  });
});
