import { median } from '@/core/base';
import { hertzToMidi } from '@/core/tuning';
import type { Fault } from './fault';
import { justInterval } from './justInterval';
import { NOTHING, type Part } from './part';
import { nameOf, pitchOf, playedNotes, type Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';
import { highOrLow } from '@/core/tuning';

/** Intervals against a drone. With a live partner the held pitch is found in what is heard before the first note. */
export function dronePart(reading: Reading, a4: number, heldHz: number | null): Part {
  const { limits } = reading;
  const root = rootOf(reading, a4, heldHz);
  if (root === null) {
    return {
      findings: [
        {
          id: 'interval',
          label: 'Against the held note',
          value: null,
          unit: '',
          sentence: 'Not known: the held note was not heard alone first, so the two cannot be told apart.',
          meaning: 'Let the partner or the piano sound alone for two seconds before you come in.',
        },
      ],
      faults: [],
    };
  }
  const rows = playedNotes(reading).flatMap(({ match, note }) => {
    const pitch = pitchOf(reading, note);
    if (!Number.isFinite(pitch) || note.centreCents === null) return [];
    return [{ match, ...justInterval(pitch, match.group.sounding, root, a4) }];
  });
  if (rows.length === 0) return NOTHING;
  const middle = median(rows.map((row) => row.cents));
  const worst = rows.reduce((a, b) => (Math.abs(b.cents) > Math.abs(a.cents) ? b : a));
  const faults: Fault[] = rows
    .filter((row) => Math.abs(row.cents) > limits.intervalCents)
    .map((row) =>
      faultAt(
        reading,
        row.match,
        row.cents > 0 ? 'steadily-high' : 'steadily-low',
        Math.abs(row.cents) / limits.intervalCents,
      ),
    );
  return {
    findings: [
      {
        id: 'interval',
        label: 'From the just interval',
        value: fixed(middle, 1),
        unit: 'cents',
        sentence:
          rows.length === 1
            ? `The ${worst.name} was ${Math.abs(worst.cents) < 1 ? 'pure' : highOrLow(worst.cents)}.`
            : `Furthest: the ${worst.name} ${worst.name === 'octave' ? '' : `(${nameOf(worst.match.group)}) `}${highOrLow(worst.cents)}.`.replace(
                '  ',
                ' ',
              ),
        meaning:
          'Your middle against the pure interval over the held note, which is not the tuner’s. The third lies 14 cents lower than on the tuner, the fifth 2 higher.',
      },
      {
        id: 'beats',
        label: 'Beats',
        value: fixed(median(rows.map((row) => row.beatHz)), 1),
        unit: 'a second',
        sentence:
          median(rows.map((row) => row.beatHz)) < 0.7
            ? 'They stood nearly still.'
            : 'Slow them until they stand still.',
        meaning: 'Of the lowest partials that coincide when the interval is pure.',
      },
    ],
    faults,
    headline: {
      text:
        rows.length === 1
          ? `${Math.abs(middle) < 1.5 ? 'A pure' : highOrLow(middle).replace(/^./, (c) => c.toUpperCase())}${Math.abs(middle) < 1.5 ? ` ${worst.name}` : `: the ${worst.name}`}`
          : Math.abs(worst.cents) <= limits.intervalCents
            ? 'All near the pure intervals'
            : `The ${worst.name} ${highOrLow(worst.cents)}`,
      weight: 2,
    },
    drawing: {
      kind: 'intervals',
      notes: rows.map((row) => ({
        name: row.name === 'unison' ? 'unison' : row.name,
        interval: nameOf(row.match.group),
        cents: row.cents,
        beatHz: row.beatHz,
      })),
    },
  };
}

/** What the intervals are built on, as it sounds: the drone's, the chord's root, or what a partner was found to hold. */
function rootOf({ score, instrument }: Reading, a4: number, heldHz: number | null): number | null {
  if (score.drone.length > 0) {
    const asked = score.parameters['root'];
    return typeof asked === 'number' ? asked + instrument.transposition : score.drone[0]!;
  }
  return heldHz === null ? null : hertzToMidi(heldHz, a4);
}
