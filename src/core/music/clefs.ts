import type { Clef, Instrument } from '@/core/instruments';
import type { Bar } from './bars';
import { phrasesOf } from './phrases';
import type { Score } from './score';

/** A phrase that lies lower than this below where the upper clef begins, in semitones and on the whole, stays in the lower one. */
const LOW = 10;

/**
 * The clef of each bar. One that is best left for high notes is changed for a whole phrase, where that reaches up and lies high on
 * the whole; a bar has the clef of the phrase that its first note belongs to.
 */
export function clefsOf(score: Pick<Score, 'notes'>, bars: readonly Bar[], instrument: Instrument): Clef[] {
  const upper = instrument.upperClef;
  if (!upper) return bars.map(() => instrument.clef);
  const clefs: Clef[] = [];
  for (const phrase of phrasesOf(score.notes)) {
    const beats = phrase.reduce((sum, note) => sum + note.beats, 0);
    const height = phrase.reduce((sum, note) => sum + note.written * note.beats, 0) / beats;
    const reaches = phrase.some(({ written }) => written >= upper.from);
    const clef = reaches && height >= upper.from - LOW ? upper.clef : instrument.clef;
    clefs.push(...phrase.map(() => clef));
  }
  let clef = instrument.clef;
  return bars.map(({ tokens }) => {
    const note = tokens.find((token) => token.note !== null)?.note;
    clef = note == null ? clef : clefs[note]!;
    return clef;
  });
}
