import { median } from '@/core/base';
import { NOTHING, type Part } from './part';
import { nameOf, playedNotes, scoreNoteOf, type Reading } from './reading';
import { fixed } from './words';

/** Signed errors of notes that were played blind: a habit, not a score. */
export function leaningPart(reading: Reading): Part {
  const rows = playedNotes(reading).flatMap(({ match, note }) =>
    note.centreCents === null
      ? []
      : [
          {
            name: nameOf(match.group),
            cents: note.centreCents + 100 * (note.soundingMidi - match.group.sounding),
          },
        ],
  );
  if (rows.length === 0) return NOTHING;
  const mean = rows.reduce((sum, row) => sum + row.cents, 0) / rows.length;
  const same = rows.filter((row) => Math.sign(row.cents) === Math.sign(mean)).length;
  return {
    findings: [
      {
        id: 'leaning',
        label: 'You lean',
        value: fixed(mean, 1),
        unit: 'cents on average',
        sentence: `${same} of ${rows.length} notes ${mean < 0 ? 'below' : 'above'} their pitch.`,
        meaning:
          'The mean signed error with the reading hidden. A habit to know, not a score: it says which way your ear and your instrument go when nothing shows you.',
      },
    ],
    faults: [],
    headline: {
      text: Math.abs(mean) < 1.5 ? 'You lean neither way' : `You lean ${mean < 0 ? 'low' : 'high'}`,
      weight: 2.2,
    },
    drawing: { kind: 'leanings', notes: rows },
  };
}

/** A chromatic map, soft, medium and loud apart. */
export function scanPart(reading: Reading): Part {
  const rows = playedNotes(reading).flatMap(({ match, note }) =>
    note.centreCents === null
      ? []
      : [
          {
            written: match.group.written,
            name: nameOf(match.group),
            dynamic: scoreNoteOf(reading, match.group).dynamic,
            cents: note.centreCents,
          },
        ],
  );
  if (rows.length < 3) return NOTHING;
  const of = (dynamic: string) =>
    median(rows.filter((row) => row.dynamic === dynamic).map((row) => row.cents));
  const [soft, loud] = [of('p'), of('f')];
  return {
    findings: Number.isFinite(soft - loud)
      ? [
          {
            id: 'soft-loud',
            label: 'Loud against soft',
            value: fixed(loud - soft, 0),
            unit: 'cents',
            sentence:
              Math.abs(loud - soft) < 5
                ? 'Loudness hardly moves the pitch.'
                : loud > soft
                  ? 'Higher when loud.'
                  : 'Lower when loud.',
            meaning: 'The middle of the loud notes less that of the soft ones.',
          },
        ]
      : [],
    faults: [],
    drawing: { kind: 'scan', notes: rows },
  };
}
