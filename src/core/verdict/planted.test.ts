import fc from 'fast-check';
import { thinned } from '@/core/base/thinned.testing';
import type { Alteration } from '@/core/lab';
import { alteredAndJudged, BY_HAND, modeAbove } from './planted.testing';

// `npm run bench -- planted` tells it of more instruments, and in rooms.
const CASES = BY_HAND.map((each, i) => ({ ...each, instrument: i % 2 === 0 ? 'flute' : 'clarinet-bb' }));
test.each(thinned(CASES, 5))('$instrument, $family: $name', ({ family, instrument, alter, kinds }) => {
  const { found, praised, verdict } = alteredAndJudged(family, instrument, alter, kinds);
  expect({ found, praised, said: verdict.headline }).toMatchObject({ found: true, praised: '' });
});

test('a note that is reached for says from which side', () => {
  const low = BY_HAND.find(({ name }) => name === 'begins 45 cents low')!;
  const { verdict } = alteredAndJudged(low.family, 'flute', low.alter, low.kinds);
  expect(verdict.headline).toMatch(/^A4 began 4\d cents low/);
});

test('in a drill no slur is clean whose note cracks a moment later', () => {
  const cracks = BY_HAND.find(({ family }) => family === 'just-this-seam')!;
  const { judgement, verdict } = alteredAndJudged('just-this-seam', 'flute', cracks.alter, cracks.kinds);
  const clean = judgement.seams.filter((seam) => seam.clean).length;
  expect(clean).toBeLessThanOrEqual(judgement.seams.length / 2);
  expect(verdict.summary).not.toMatch(/All 15 notes/);
});

test('a stretch of a held note that is altered anywhere is what is told first', () => {
  const kinds = {
    mode: ['break-up'],
    note: ['slipped'],
    silence: ['stopped'],
  } as const;
  fc.assert(
    fc.property(
      fc.constantFrom('mode' as const, 'note' as const, 'silence' as const),
      fc.double({ min: 0.8, max: 4, noNaN: true }),
      fc.double({ min: 0.3, max: 3, noNaN: true }),
      (what, after, lasts) => {
        const alter = (start: number): Alteration => {
          const stretch = { from: start + after, to: start + after + lasts };
          return what === 'silence'
            ? { how: 'silence', ...stretch }
            : { how: 'pitch', by: what === 'mode' ? modeAbove('flute') : 200, ...stretch };
        };
        const { judgement, praised } = alteredAndJudged(
          'long-tone',
          'flute',
          ([note]) => [alter(note!.startSeconds)],
          kinds[what],
        );
        expect(judgement.ranked[0]?.kind).toBe(kinds[what][0]);
        expect(praised).toBe('');
      },
    ),
    { numRuns: 8 },
  );
});
