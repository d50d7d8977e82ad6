import { median } from '@/core/base';
import { beyondEither } from '../beyond';
import { figure, figuresAt, isKnown, valueOf, type Figure } from '../figure';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { centsOff, pitchOf, playedNote, playedNotes, type Reading } from '../reading';
import { sized } from '../words';
import { slursIn } from './slurs';

/** Slurred intervals against their size. */
export const interval: Measure = {
  measure(reading) {
    return numbers(
      slursIn(reading.alignment.matches).flatMap(({ from, to }): Figure[] => {
        const [a, b] = [playedNote(reading, from), playedNote(reading, to)];
        if (!a || !b) return [];
        const [offA, offB] = [
          centsOff(reading, { match: from, note: a }),
          centsOff(reading, { match: to, note: b }),
        ];
        if (offA === null || offB === null) return [];
        const direction = Math.sign(to.group.sounding - from.group.sounding);
        return [
          figure('interval', direction * (offB - offA), {
            at: to.group.index,
            groups: [from.group.index, to.group.index],
          }),
        ];
      }),
    );
  },
  judge(figures, judging) {
    return figuresAt(figures, 'interval').flatMap((each) =>
      beyondEither(judging, each, judging.limits.intervalCents, ['narrow-interval', 'wide-interval'], {
        atSlur: true,
      }),
    );
  },
  say: () => SILENT,
};

/** Octaves that follow each other, played plainly: how wide each is. */
export const octaves: Measure = {
  measure(reading) {
    const rows = octavesOf(reading);
    if (rows.length === 0) return NOTHING;
    const found = figuresAt(rows, 'octave');
    const groups = found.flatMap((each) => [...each.groups]);
    return numbers([
      ...rows,
      figure('octaves', median(found.map(({ value }) => value)), { groups, n: found.length }),
    ]);
  },
  judge(figures, judging) {
    // Slurred octaves are told as intervals where those are looked at.
    const told = judging.score.counts.measures.includes('interval');
    return figuresAt(figures, 'octave')
      .filter(({ at }) => !(told && judging.matches[at]!.group.slurred))
      .flatMap((each) =>
        beyondEither(judging, each, judging.limits.intervalCents, ['narrow-interval', 'wide-interval']),
      );
  },
  say(figures, { limits, slurAt }) {
    const middle = valueOf(figures, 'octaves');
    if (middle === null) return SILENT;
    const worst = figuresAt(figures, 'octave').reduce((a, b) =>
      Math.abs(b.value) > Math.abs(a.value) ? b : a,
    );
    return {
      headline: Math.abs(middle) < 1 ? 'True octaves' : `Octaves ${wide(middle)}`,
      lines: {
        octaves:
          Math.abs(worst.value) <= limits.intervalCents
            ? `All within your limit of ${sized(limits.intervalCents, 'cents')}.`
            : `${slurAt(worst.at)} was furthest out: ${wide(worst.value)}.`,
      },
    };
  },
  draw({ figures }, { limits, slurAt }) {
    const rows = figuresAt(figures, 'octave');
    if (rows.length === 0) return [];
    return [
      {
        kind: 'rows',
        title: 'Octaves',
        form: 'deviations',
        reach: 20,
        sides: ['narrow', 'wide'],
        rows: rows.map(({ at, value }) => ({
          name: slurAt(at),
          value,
          text: wide(value),
          stands: Math.abs(value) > limits.intervalCents,
        })),
      },
    ];
  },
};

/** `4 cents wide`, `true`. */
export const wide = (cents: number): string =>
  Math.round(Math.abs(cents)) === 0 ? 'true' : `${sized(cents, 'cents')} ${cents > 0 ? 'wide' : 'narrow'}`;

function octavesOf(reading: Reading): Figure[] {
  const pairs = playedNotes(reading);
  return pairs.flatMap((low, i) => {
    const high = pairs[i + 1];
    if (!high || high.match.group.written - low.match.group.written !== 12) return [];
    if (high.match.group.index !== low.match.group.index + 1) return [];
    if (low.note.centreCents === null || high.note.centreCents === null) return [];
    const width = 100 * (pitchOf(reading, high.note) - pitchOf(reading, low.note)) - 1200;
    const groups = [low.match.group.index, high.match.group.index];
    const found = figure('octave', width, { at: high.match.group.index, groups }, 'too-short');
    return isKnown(found) ? [found] : [];
  });
}
