import { median } from '@/core/base';
import { lengthOf } from '@/core/hearing/notes';
import { beatsToSeconds } from '@/core/music';
import { NOTHING, type Part } from './part';
import { nameOf, playedNotes, scoreNoteOf, type Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';

/** Held this much longer than the notes around it, a note is a hold. */
const TIMES_LONGER = 2;

/** How long held notes stayed pure. */
export function holdPart(reading: Reading): Part {
  const { score, limits } = reading;
  const pairs = playedNotes(reading);
  const usual = median(pairs.map(({ match }) => match.group.beats));
  const held = pairs.filter(({ match }) => {
    const { label } = scoreNoteOf(reading, match.group);
    return (
      label === 'hold' || label === 'stay' || label === 'whisper' || match.group.beats >= TIMES_LONGER * usual
    );
  });
  const holds = (held.length > 0 ? held : pairs.slice(-1)).map(({ match, note }) => ({
    match,
    name: nameOf(match.group),
    pure: note.puritySeconds,
    length: lengthOf(note),
    asked: beatsToSeconds(score, match.group.beats),
  }));
  const known = holds.filter((hold) => hold.pure !== null);
  if (known.length === 0) return NOTHING;
  const best = known.reduce((a, b) => ((b.pure ?? 0) > (a.pure ?? 0) ? b : a));
  const total = known.reduce((sum, hold) => sum + (hold.pure ?? 0), 0);
  return {
    findings: [
      {
        id: 'best-hold',
        label: 'Longest pure hold',
        value: fixed(best.pure ?? 0, 1),
        unit: 's',
        sentence: `${best.name}, held for ${fixed(best.length, 1)} s.`,
        meaning: `How long a tone stayed within ${limits.purityCents} cents and ${limits.purityDb} dB of its own first second, and without vibrato where none was asked for. The figure to follow over a month or two.`,
      },
      {
        id: 'total-hold',
        label: 'Pure in all',
        value: fixed(total, 1),
        unit: 's',
        sentence: `${known.length} ${known.length === 1 ? 'hold' : 'holds'}.`,
        meaning: 'The pure times of all holds of this take together.',
      },
    ],
    faults: score.counts.exploring
      ? []
      : known
          .filter((hold) => (hold.pure ?? 0) < limits.holdShare * Math.min(hold.length, hold.asked))
          .map((hold) => faultAt(reading, hold.match, 'fading-hold', 1.2, 0.6)),
    headline: { text: `Pure for ${fixed(best.pure ?? 0, 1)} s`, weight: 1.8 },
    drawing: {
      kind: 'holds',
      holds: holds.map(({ name, pure, length, asked }) => ({ name, pure, length, asked })),
    },
  };
}
