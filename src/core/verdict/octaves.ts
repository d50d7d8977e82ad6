import { median } from '@/core/base';
import { NOTHING, type Part } from './part';
import { nameOf, pitchOf, playedNotes, type Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';

/** Octaves that follow each other, played plainly: how wide each is. */
export function octavePart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading);
  const octaves = pairs.flatMap((low, i) => {
    const high = pairs[i + 1];
    const size = high ? high.match.group.written - low.match.group.written : 0;
    if (!high || size !== 12) return [];
    const width = 100 * (pitchOf(reading, high.note) - pitchOf(reading, low.note)) - 1200;
    return Number.isFinite(width)
      ? [{ low, high, width, name: `${nameOf(low.match.group)}–${nameOf(high.match.group)}` }]
      : [];
  });
  if (octaves.length === 0) return NOTHING;
  const middle = median(octaves.map((each) => each.width));
  const worst = octaves.reduce((a, b) => (Math.abs(b.width) > Math.abs(a.width) ? b : a));
  return {
    findings: [
      {
        id: 'octaves',
        label: 'Octaves',
        value: fixed(middle, 1),
        unit: 'cents wide',
        sentence:
          Math.abs(worst.width) <= limits.intervalCents
            ? 'All within your limit.'
            : `${worst.name} was furthest out: ${fixed(Math.abs(worst.width), 0)} cents ${worst.width > 0 ? 'wide' : 'narrow'}.`,
        meaning:
          'The higher note against the lower one; plus is wide. The octave is the same in every temperament.',
      },
    ],
    faults: octaves
      .filter((each) => Math.abs(each.width) > limits.intervalCents)
      .map((each) =>
        faultAt(
          reading,
          each.high.match,
          each.width > 0 ? 'wide-interval' : 'narrow-interval',
          Math.abs(each.width) / limits.intervalCents,
        ),
      ),
    headline: {
      text:
        Math.abs(middle) < 1
          ? 'True octaves'
          : `Octaves ${fixed(Math.abs(middle), 0)} cents ${middle > 0 ? 'wide' : 'narrow'}`,
      weight: 1.7,
    },
    drawing: {
      kind: 'intervals',
      notes: octaves.map((each) => ({
        name: each.name,
        interval: 'octave',
        cents: each.width,
        beatHz: null,
      })),
    },
  };
}
