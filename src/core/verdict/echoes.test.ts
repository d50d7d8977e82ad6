import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { judgedAsWritten, kindsOf, said, sentenceOf, type Otherwise } from './asWritten.testing';
import type { FigureId } from '.';

const LIVING = { decaySeconds: 0.4, spreadDb: 4 };
const DRY = { decaySeconds: 0.05, spreadDb: 0.2 };

/** What is said of the same take where nothing rings, and in a living room. */
const inBoth = (family: string, id: FigureId, otherwise: Otherwise) =>
  [DRY, LIVING].map((room) => {
    const judgement = judgedAsWritten(scoreOfFamily(family, 'flute'), { ...otherwise, conditions: { room } });
    return sentenceOf(judgement, id);
  });
const shaken = (note: Partial<Note>): Otherwise => ({ note: () => note });

describe('what echoes alone can make is said to be unknown, and is told where nothing rings', () => {
  it.each<[string, FigureId, Otherwise, RegExp]>([
    ['long-tone', 'level-wobble', shaken({ levelWobbleDb: 2.4 }), /^The loudness was uneven/],
    ['long-tone', 'purity', shaken({ puritySeconds: 0.8 }), /^Pure for 0\.8 of/],
    ['long-tone', 'wobble', shaken({ wobbleCents: 7 }), /^The pitch shook/],
    ['problem-circle', 'slur-dip', { slur: () => ({ dipDb: 4 }) }, /^The level gave way/],
    [
      'reference-travel',
      'level-spread',
      { note: ({ index }) => ({ levelDb: -20 + 3 * (index % 4) }) },
      /^The notes differed in level/,
    ],
    [
      'reversed-dynamics',
      'line',
      { note: ({ index }) => ({ levelDb: -20 + (index % 2 === 0 ? 3.4 : -3.4) }) },
      /^The line is uneven at/,
    ],
  ])('%s: %s', (family, id, otherwise, told) => {
    const [dry, living] = inBoth(family, id, otherwise);
    expect(dry).toMatch(told);
    expect(living).toMatch(/^Not known: /);
  });

  it('a note that strays further than echoes can move it is cut short by itself', () => {
    const strays = shaken({ puritySeconds: 0.8, driftCentsPerSecond: -6 });
    expect(inBoth('long-tone', 'purity', strays)[1]).toMatch(/^Pure for 0\.8 of/);
  });

  it('a tone that fades by itself in a node is not blamed', () => {
    const fading = (room: typeof LIVING) =>
      kindsOf(
        judgedAsWritten(scoreOfFamily('long-tone', 'flute'), {
          note: () => ({ levelDriftDbPerSecond: -1.2 }),
          conditions: { room },
        }),
      );
    expect(fading(DRY)).toEqual(['fading-hold']);
    expect(fading(LIVING)).toEqual([]);
  });
});

test.each<[string, Partial<Note>, string]>([
  ['sinks', { driftCentsPerSecond: -6 }, 'sinks'],
  ['shakes', { wobbleCents: 5.5 }, 'unsteady'],
  ['fades', { levelDriftDbPerSecond: -4 }, 'fades'],
])('how a single note was held is left open where it %s by what echoes make', (_, note, word) => {
  const mannerIn = (room: typeof LIVING) =>
    said(
      judgedAsWritten(scoreOfFamily('low-chromatics', 'flute'), {
        note: () => ({ startSeconds: 1, endSeconds: 2, ...note }),
        conditions: { room },
      }),
    ).notes[0]!.manner;
  expect(mannerIn(DRY)).toContain(word);
  expect(mannerIn(LIVING)).toBe('');
});

describe('a beginning that echoes blur', () => {
  const blurred: Otherwise = {
    note: () => ({
      attack: { riseSeconds: null, scoopCents: 0, speechSeconds: 0 },
      unknown: { riseSeconds: 'room' },
    }),
  };

  it('is told with what is known of it', () => {
    const [, living] = inBoth('low-chromatics', 'rise', blurred);
    expect(living).toBe(
      'The notes spoke at once. How fast the sound rose is not known: the echoes of this room blur it.',
    );
  });

  it('does not tell two ways of tonguing from each other', () => {
    const ways = judgedAsWritten(scoreOfFamily('eight-ways', 'flute'), {
      ...blurred,
      conditions: { room: LIVING },
    });
    expect(sentenceOf(ways, 'two-tongues')).toMatch(/^Whether the two rose alike is not known/);
  });
});
