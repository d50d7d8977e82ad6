import { group, median } from 'd3-array';
import type { Decibels } from '@/core/base';
import type { Note } from '@/core/hearing/notes';
import { playedNotes, scoreNoteOf, type Reading } from '../reading';

/** How many times as much a room may do to a note as it does to most. */
export type InNode = (note: Note) => number;

/**
 * Where the echoes cancel what comes straight from the instrument, little of a note is left, and what rings on from others pulls at its
 * pitch and its level by as much more (by amplitude) as it lies under its fellows, the notes that were to be as loud. Who plays one note
 * softer is allowed as much: the sound does not tell the two apart. 1 in a room that does not ring, and where no level is known.
 */
export function inNodes(reading: Pick<Reading, 'score' | 'notes' | 'alignment' | 'room'>): InNode {
  if (!reading.room.spreadDb) return () => 1;
  const known = playedNotes(reading).filter(({ note }) => note.levelDb !== null);
  const fellows = group(known, ({ match }) => {
    const { dynamic, hairpin } = scoreNoteOf(reading, match.group);
    return `${dynamic} ${hairpin}`;
  });
  const under = new Map(
    [...fellows.values()].flatMap((alike) => {
      const usual = median(alike, ({ note }) => note.levelDb)!;
      return alike.map(({ note }) => [note, usual - note.levelDb!] as const);
    }),
  );
  return (note) => times(Math.max(0, under.get(note) ?? 0));
}

const times = (dB: Decibels): number => 10 ** (dB / 20);
