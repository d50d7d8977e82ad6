import { barsOf, type Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { keyName, spell } from '@/core/tuning';
import { accidentalsOf, linesOf } from './notation/layout';

const made = (family: string, values: Record<string, unknown>) => scoreOfFamily(family, 'flute', values);
const signs = (score: Score, fifths = score.fifths) =>
  barsOf(score).map((bar) =>
    accidentalsOf(bar, (note) => [spell(score.notes[note]!.written, fifths)], fifths).flat(),
  );

describe('signs before notes', () => {
  it('are set once a bar, and taken back in the next', () => {
    const scan = made('tendency-scan', { range: { low: 60, high: 67 }, loudness: 'mf', beats: 2 });
    expect(signs(scan)).toEqual([
      [null, '#'],
      [null, 'b'],
      [null, null],
      ['#', null],
    ]);
    const fours = made('three-note-groups', { range: { low: 64, high: 68 }, beats: 1 });
    expect(
      signs(fours)
        .flat()
        .filter((sign) => sign === 'n').length,
    ).toBeGreaterThan(0);
  });

  it('are none where the key says it already', () => {
    for (const key of ['0', '3', '-4', '6'])
      expect(
        signs(made('swells', { key, range: { low: 60, high: 80 } }))
          .flat()
          .every((sign) => sign === null),
      ).toBe(true);
    expect([-7, -3, 0, 1, 7].map(keyName)).toEqual(['Cb', 'Eb', 'C', 'G', 'C#']);
  });
});

describe('lines', () => {
  it('hold as many bars as fit, all of them, in order', () => {
    const bars = [100, 100, 100, 250, 40, 40];
    const lines = linesOf(6, 300, (bar, isFirst) => bars[bar]! + (isFirst ? (bar === 0 ? 70 : 40) : 0));
    expect(lines).toEqual([[0, 1], [2], [3], [4, 5]]);
    expect(lines.flat()).toEqual([0, 1, 2, 3, 4, 5]);
  });

  it('have at least one bar even when it is wider than the page', () => {
    expect(linesOf(2, 300, () => 940)).toEqual([[0], [1]]);
  });
});
