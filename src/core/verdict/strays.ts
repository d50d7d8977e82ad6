import type { Seconds } from '@/core/base';
import { NEIGHBOUR, type Alignment } from '@/core/hearing/matching';
import type { Note, NoteEvent } from '@/core/hearing/notes';
import { areModesApart, type Instrument } from '@/core/instruments';

/** What is off by less is the same note, out of tune. */
const SAME = 0.75;
/** Sounds that are nearer are joined. */
const JOINED: Seconds = 0.05;
/** How sure what was heard as a note of its own is not the note that it stands in. */
const STRAY_CONFIDENCE = 0.9;

/**
 * What sounded inside a note and is not that note: another mode or another note, however long, which the ear heard as a note of its
 * own. Where the player went back, what was heard before the last playing is no part of it.
 */
export function straysIn(
  { matches, extras, returns }: Alignment,
  notes: readonly Note[],
  instrument: Instrument,
): NoteEvent[] {
  return matches.flatMap((match, i) => {
    const { group, note, parts, state } = match;
    if (note === null || (state !== 'played' && state !== 'mode')) return [];
    const [first, last] = [parts[0]!, parts[parts.length - 1]!];
    const next = matches.slice(i + 1).find((each) => each.parts.length > 0)?.parts[0] ?? notes.length;
    return notes.flatMap((each, k): NoteEvent[] => {
      const begins = each.startSeconds > notes[first]!.endSeconds - JOINED;
      const isInside = k === first || (begins && k <= last && k > first);
      const isAfter = returns === 0 && k > last && k < next && isJoined(notes, last, k);
      const away = each.soundingMidi - group.sounding;
      if (k === note || (!isInside && !isAfter) || Math.abs(away) < SAME) return [];
      if (!parts.includes(k) && !extras.includes(k)) return [];
      const { startSeconds, endSeconds, soundingMidi } = each;
      const kind = Math.abs(away) > NEIGHBOUR && areModesApart(instrument, away) ? 'break' : 'wrong-note';
      return [
        { kind, startSeconds, endSeconds, soundingMidi, noteIndex: note, confidence: STRAY_CONFIDENCE },
      ];
    });
  });
}

/** Whether each of some notes begins where the one before it ends. */
const isJoined = (notes: readonly Note[], from: number, to: number): boolean =>
  notes
    .slice(from, to)
    .every((note, i) => Math.abs(notes[from + i + 1]!.startSeconds - note.endSeconds) < JOINED);
