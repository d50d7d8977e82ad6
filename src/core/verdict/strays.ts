import type { Decibels, Seconds } from '@/core/base';
import { NEIGHBOUR, SAME, type Alignment } from '@/core/hearing/matching';
import { lengthOf, type Note, type NoteEvent } from '@/core/hearing/notes';
import { areModesApart, type Instrument } from '@/core/instruments';

/** Sounds that are nearer are joined. */
const JOINED: Seconds = 0.05;
/** How sure what was heard as a note of its own is not the note that it stands in. */
const STRAY_CONFIDENCE = 0.9;

/** A mode that the note cracks into is about as loud as it; what rings on is softer. */
const WISP_DB: Decibels = 10;

const under = (note: Note, other: Note): Decibels =>
  note.levelDb === null || other.levelDb === null ? 0 : note.levelDb - other.levelDb;

/**
 * What sounded inside a note and is not that note: another mode or another note, however long, which the ear heard as a note of its
 * own. Where the player went back, what was heard before the last playing is no part of it.
 * @param blur how long the room lets a note ring on.
 */
export function straysIn(
  { matches, extras, returns }: Alignment,
  notes: readonly Note[],
  instrument: Instrument,
  blur: Seconds,
): NoteEvent[] {
  return matches.flatMap((match, i) => {
    const { group, note, parts, state } = match;
    if (note === null || (state !== 'played' && state !== 'mode')) return [];
    const [first, last] = [parts[0]!, parts[parts.length - 1]!];
    const next = matches.slice(i + 1).find((each) => each.parts.length > 0)?.parts[0] ?? notes.length;
    const before = (k: number) => notes[k - 1]!.endSeconds;
    let isJoined = returns === 0;
    return notes.slice(first, next).flatMap((each, k): NoteEvent[] => {
      const at = first + k;
      // Where a note rings on, it and the next make a sound that neither of them is.
      const isWisp = at > last && lengthOf(each) < blur && under(notes[last]!, each) > WISP_DB;
      if (at > last) isJoined &&= Math.abs(each.startSeconds - before(at)) < JOINED;
      // Two sounds at once are two players, or a voice.
      const isBeside = at > first && each.startSeconds <= notes[first]!.endSeconds - JOINED;
      const away = each.soundingMidi - group.sounding;
      if (at === note || isBeside || isWisp || Math.abs(away) < SAME || (at > last && !isJoined)) return [];
      if (!parts.includes(at) && !extras.includes(at)) return [];
      const { startSeconds, endSeconds, soundingMidi } = each;
      const kind = Math.abs(away) > NEIGHBOUR && areModesApart(instrument, away) ? 'break' : 'wrong-note';
      return [
        { kind, startSeconds, endSeconds, soundingMidi, noteIndex: note, confidence: STRAY_CONFIDENCE },
      ];
    });
  });
}
