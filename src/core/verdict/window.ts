import { median } from '@/core/base';
import { NOTHING, type Part } from './part';
import { nameOf, type Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';

/** The softest and the loudest that each note was held at. */
export function windowPart(reading: Reading): Part {
  const { alignment, notes, score, limits } = reading;
  const rows = alignment.matches.flatMap((soft, i) => {
    const loud = alignment.matches[i + 1];
    const isPair =
      score.notes[soft.group.from]!.label === 'softest' &&
      loud !== undefined &&
      loud.group.written === soft.group.written;
    if (!isPair || soft.note === null || loud.note === null) return [];
    const [a, b] = [notes[soft.note]!, notes[loud.note]!];
    if (a.levelDb === null || b.levelDb === null) return [];
    return [
      {
        match: soft,
        name: nameOf(soft.group),
        softDb: a.levelDb,
        loudDb: b.levelDb,
        softCents: a.centreCents,
        loudCents: b.centreCents,
      },
    ];
  });
  if (rows.length === 0) return NOTHING;
  const widths = rows.map((row) => row.loudDb - row.softDb);
  const narrowest = rows.reduce((a, b) => (b.loudDb - b.softDb < a.loudDb - a.softDb ? b : a));
  const middle = median(widths);
  return {
    findings: [
      {
        id: 'window',
        label: 'Dynamic window',
        value: fixed(middle, 0),
        unit: 'dB, the middle note',
        sentence: `Narrowest: ${narrowest.name}, ${fixed(narrowest.loudDb - narrowest.softDb, 0)} dB.`,
        meaning: 'From the softest to the loudest that was held with its tone.',
      },
    ],
    faults: rows
      .filter((row) => row.loudDb - row.softDb < limits.windowDb)
      .map((row) =>
        faultAt(reading, row.match, 'narrow-window', limits.windowDb / Math.max(1, row.loudDb - row.softDb)),
      ),
    headline: { text: `${fixed(middle, 0)} dB from soft to loud`, weight: 1.8 },
    drawing: {
      kind: 'window',
      notes: rows.map(({ name, softDb, loudDb, softCents, loudCents }) => ({
        name,
        softDb,
        loudDb,
        softCents,
        loudCents,
      })),
    },
  };
}
