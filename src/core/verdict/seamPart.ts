import { median } from '@/core/base';
import { findFamily } from '@/core/music';
import type { Fault } from './fault';
import { NOTHING, type Part } from './part';
import { nameOf, scoreNoteOf, type Reading } from './reading';
import type { JudgedSeam } from './seams';
import { fixed, plural } from './words';

function faultsOfSeams(reading: Reading, seams: readonly JudgedSeam[]): Fault[] {
  return seams.flatMap(({ to, why }) =>
    why
      .filter(({ kind }) => kind !== 'missed' && kind !== 'wrong-note')
      .map(({ kind, size, confidence }) => ({
        kind,
        group: to.index,
        atSlur: true,
        size,
        confidence,
        dynamic: scoreNoteOf(reading, to).dynamic,
      })),
  );
}

const slursFirst = ({ score }: Reading) =>
  score.family === 'excerpt' || findFamily(score.family)?.section === 'seams';

/** What is to be said of all slurs together. */
export function seamPart(reading: Reading, seams: readonly JudgedSeam[]): Part {
  const known = seams.filter((seam) => seam.clean !== null);
  if (known.length === 0) return NOTHING;
  const failed = known.filter((seam) => !seam.clean);
  const crossing = known.filter((seam) => seam.crosses);
  const crossed = crossing.filter((seam) => seam.clean).length;
  const dips = known.map((seam) => seam.transition?.dipDb ?? NaN);
  const times = known.map((seam) => seam.transition?.seconds ?? NaN);
  const worst = [...failed].sort((a, b) => (b.why[0]?.size ?? 0) - (a.why[0]?.size ?? 0))[0];
  const clean = known.length - failed.length;
  return {
    headline: {
      text:
        failed.length === 0
          ? known.length === 1
            ? 'The slur was clean'
            : `All ${known.length} slurs clean`
          : `${clean} of ${known.length} slurs clean`,
      // Where slurs are what is practised, they come first.
      weight: (slursFirst(reading) ? 2.2 : 1) + (2.5 * failed.length) / known.length,
    },
    findings: [
      {
        id: 'slurs',
        label: 'Slurs',
        value: `${clean} of ${known.length}`,
        unit: 'clean',
        sentence: worst
          ? `The worst: ${nameOf(worst.from)} to ${nameOf(worst.to)}, ${worst.why
              .map((each) => each.text)
              .slice(0, 2)
              .join(', and ')}.`
          : 'Nothing broke, nothing dipped, each settled in time.',
        meaning:
          'A slur is clean when no mode sounded that was not asked for, the level neither dipped nor jumped, the new pitch settled in time, and the interval is right where it counts. The limits are those of your level.',
      },
      ...(crossing.length > 0 && crossing.length < known.length
        ? [
            {
              id: 'crossings',
              label: 'Over the break',
              value: `${crossed} of ${crossing.length}`,
              unit: 'clean',
              sentence:
                crossed === crossing.length
                  ? `${plural(crossing.length, 'crossing')} of a break, all clean.`
                  : `${plural(crossing.length - crossed, 'crossing')} of a break failed.`,
              meaning: 'Those slurs whose two notes lie in different registers.',
            },
          ]
        : []),
      ...figures(
        'slur-dip',
        'Dip',
        'dB',
        median(dips),
        1,
        'The middle of the dips in level between slurred notes, under the softer of the two.',
        (dB) =>
          dB < reading.limits.seamDipDb / 2
            ? 'The air went on through the slurs.'
            : 'The air let go between the notes.',
      ),
      ...figures(
        'slur-time',
        'Time of a slur',
        'ms',
        1000 * median(times),
        0,
        'From leaving one pitch to having settled on the other, what the measuring takes of it left out.',
        (ms) =>
          ms < 1000 * reading.limits.seamSeconds ? 'They settled in time.' : 'They took long to settle.',
      ),
    ],
    faults: faultsOfSeams(reading, seams),
  };
}

function figures(
  id: string,
  label: string,
  unit: string,
  value: number,
  decimals: number,
  meaning: string,
  say: (value: number) => string,
): Part['findings'] {
  return Number.isFinite(value)
    ? [{ id, label, unit, value: fixed(value, decimals), sentence: say(value), meaning }]
    : [];
}
