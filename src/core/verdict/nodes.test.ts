import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { judgedAsWritten, kindsOf, sentenceOf, valueAt } from './asWritten.testing';

const LIVING = { decaySeconds: 0.4, spreadDb: 4 };
const DRY = { decaySeconds: 0.05, spreadDb: 0.2 };
/** Of as many partials, so that the room moves the level of the whole by less. */
const partialsDb = [-20, -20, -20, -20];
const score = scoreOfFamily('long-hold', 'recorder-alto');
/** The first note that is held for long, and one on the way to it. */
const held = score.notes.findIndex(({ role }) => role === 'hold');
const passing = held - 1;

/** Something is the matter with one note, which is so many dB softer than those around it. */
const judged = (at: number, wrong: Partial<Note>, softer: number, room = LIVING) =>
  judgedAsWritten(score, {
    note: ({ index }) => ({
      partialsDb,
      levelDb: index === at ? -20 - softer : -20,
      ...(index === at && wrong),
    }),
    conditions: { room },
  });

describe.each<[string, number, Partial<Note>, string]>([
  ['shakes', passing, { wobbleCents: 7 }, 'unsteady'],
  ['drifts', held, { driftCentsPerSecond: 2 }, 'rising'],
  ['fades', held, { levelDriftDbPerSecond: -1.2 }, 'fading-hold'],
  ['leaves its level', held, { puritySeconds: 3 }, 'short-purity'],
])('a note that %s a little', (_, at, wrong, kind) => {
  it('is told of', () => {
    expect(kindsOf(judged(at, wrong, 0))).toEqual([kind]);
  });

  it('is not where it lies so far under its fellows that echoes could do it', () => {
    expect(kindsOf(judged(at, wrong, 16))).toEqual([]);
  });

  it('is where nothing rings, however soft it is', () => {
    expect(kindsOf(judged(at, wrong, 16, DRY))).toEqual([kind]);
  });
});

test('what shakes by more than echoes could make is told of in a node too', () => {
  expect(kindsOf(judged(passing, { wobbleCents: 30 }, 10))).toEqual(['unsteady']);
});

test('a hold that echoes may have cut short is said to be unknown, and the others are told', () => {
  const judgement = judged(held, { puritySeconds: 3 }, 16);
  expect(valueAt(judgement, 'hold-pure', held)).toBeNaN();
  expect(sentenceOf(judgement, 'best-hold')).toMatch(/^[A-G]\S*, held for/);
});
