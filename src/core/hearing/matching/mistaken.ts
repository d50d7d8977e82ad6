import type { Semitones } from '@/core/base';
import { instruments, type Instrument } from '@/core/instruments';
import type { Note } from '@/core/hearing/notes';
import type { Alignment } from './align';
import type { Group } from './groups';

/** What was played instead of what is written, as far as it can be told. */
export type Mistaken =
  /** The same music, all of it so far away: another octave, another transposition. */
  | { readonly kind: 'transposed'; readonly by: Semitones; readonly instrument: Instrument | null }
  /** Something else: few of the sounds heard are of this music. */
  | { readonly kind: 'other'; readonly heard: number };

const FEWEST = 4;
/** Share of the notes that are as written, under which something else is thought of. */
const HARDLY = 0.35;
/** Share of what was heard that the same music, moved, has in common with it: with little right as written, and with much. */
const SAME = 0.65;
const ALL = 0.95;
/** A chromatic row that is moved still has most of its notes: so many are right at the most where all of it was moved. */
const MOSTLY = 0.85;
const FURTHEST: Semitones = 24;

/** Null where the music was played, or too little was heard to tell. */
export function mistaken(
  { groups, matches }: Alignment,
  notes: readonly Note[],
  instrument: Instrument,
): Mistaken | null {
  const count = Math.min(groups.length, notes.length);
  const right = matches.filter(({ state }) => state === 'played').length;
  if (count < FEWEST || right > MOSTLY * count) return null;
  const { by, share } = shiftOf(groups, notes);
  if (by !== 0 && share >= (right > HARDLY * count ? ALL : SAME))
    return { kind: 'transposed', by, instrument: otherInstrument(instrument, by) };
  return right > HARDLY * count ? null : { kind: 'other', heard: notes.length };
}

/** The distance by which most of what was heard follows the music, the smallest of those, and the share that does. */
function shiftOf(groups: readonly Group[], notes: readonly Note[]): { by: Semitones; share: number } {
  const heard = notes.map(({ soundingMidi }) => soundingMidi);
  const rows = Array.from({ length: 2 * FURTHEST + 1 }, (_, i) => i - FURTHEST).map((by) => ({
    by,
    common: longestCommon(
      groups.map(({ sounding }) => Math.round(sounding) + by),
      heard,
    ),
  }));
  const best = rows.reduce((a, b) =>
    b.common > a.common || (b.common === a.common && Math.abs(b.by) < Math.abs(a.by)) ? b : a,
  );
  return { by: best.by, share: best.common / Math.min(groups.length, notes.length) };
}

/** Length of the longest common subsequence. */
function longestCommon(a: readonly number[], b: readonly number[]): number {
  let row = new Uint16Array(b.length + 1);
  for (const each of a) {
    const next = new Uint16Array(b.length + 1);
    b.forEach((other, j) => {
      next[j + 1] = each === other ? row[j]! + 1 : Math.max(next[j]!, row[j + 1]!);
    });
    row = next;
  }
  return row[b.length]!;
}

/** The instrument of the same kind and registers on which the same written notes would have sounded so. */
function otherInstrument(instrument: Instrument, by: Semitones): Instrument | null {
  const wanted = instrument.transposition + by;
  return (
    instruments.find(
      (each) =>
        each.id !== instrument.id &&
        each.kind === instrument.kind &&
        each.series === instrument.series &&
        each.transposition === wanted &&
        each.registers.length === instrument.registers.length,
    ) ?? null
  );
}
