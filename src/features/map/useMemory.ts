import { useMemo, useState } from 'react';
import { DAY_MS } from '@/core/base';
import { findInstrument, type Instrument } from '@/core/instruments';
import {
  EVERYTHING,
  noteMap,
  seamMap,
  through,
  type Lens,
  type MappedBreak,
  type NoteMap,
  type Played,
} from '@/core/ledger';
import { limitsOf, type Limits } from '@/core/verdict';
import { useInstrumentsPlayed, usePlayed, useSettings } from '@/store';

/** Days; `all` is whatever there is. */
export const PERIODS = { 'half year': 183, 'six weeks': 42, 'two weeks': 14, all: null } as const;
export type Period = keyof typeof PERIODS;

/** What is remembered of the instrument that is looked at; null while it is read, or where there is none. */
export interface Memory {
  readonly instrument: Instrument;
  readonly played: readonly Played[];
  readonly limits: Limits;
  /** Days since 1970. */
  readonly now: number;
}

/** Which instruments can be looked at: what is played now, and what there are takes of. */
export function useMemory(
  chosen: string | null = null,
  period: Period = 'half year',
): {
  memory: Memory | null;
  others: readonly Instrument[];
} {
  const { settings } = useSettings();
  const { data: withTakes } = useInstrumentsPlayed();
  const { instrumentId, ownInstruments, removedInstruments, level, ownLimits } = settings;
  const own = useMemo(() => [...ownInstruments, ...removedInstruments], [ownInstruments, removedInstruments]);
  // Someone who has just changed to an instrument without takes wants to see it all the same.
  const instrument = findInstrument(chosen ?? instrumentId, own) ?? null;
  const { data: played } = usePlayed(instrument?.id ?? '', PERIODS[period] === null);
  const [now] = useState(() => Date.now() / DAY_MS);
  const others = useMemo(
    () =>
      [...new Set([instrumentId, ...(withTakes ?? []).map((each) => each.instrumentId)])].flatMap(
        (id) => findInstrument(id, own) ?? [],
      ),
    [withTakes, own, instrumentId],
  );
  const limits = useMemo(() => limitsOf(level, ownLimits), [level, ownLimits]);
  const memory = useMemo(
    () => (instrument && played ? { instrument, played, limits, now } : null),
    [instrument, played, limits, now],
  );
  return { memory, others };
}

/** Where notes lie and seams hold, through a lens. */
export interface Seen {
  readonly lens: Lens;
  readonly view: 'mode' | 'hand';
  readonly played: readonly Played[];
  readonly map: NoteMap;
  readonly breaks: readonly MappedBreak[];
}

/** All that was heard, through no lens, is long to look through: it is known until something changes that it follows from. */
let known: { readonly memory: Memory; readonly seen: Seen } | null = null;

const isSame = (a: Memory, b: Memory): boolean =>
  a.played === b.played &&
  a.instrument === b.instrument &&
  Math.floor(a.now) === Math.floor(b.now) &&
  JSON.stringify(a.limits) === JSON.stringify(b.limits);

function see(memory: Memory, lens: Lens, view: 'mode' | 'hand'): Seen {
  const { instrument, limits, now } = memory;
  const played = through(memory.played, lens);
  return {
    lens,
    view,
    played,
    map: noteMap(played, instrument, now, lens.loudness),
    breaks: seamMap(played, instrument, limits, now, view),
  };
}

function seeAll(memory: Memory): Seen {
  if (!known || !isSame(known.memory, memory)) known = { memory, seen: see(memory, EVERYTHING, 'mode') };
  return known.seen;
}

/** @param view of the first break, where the instrument has two: by the mode of the tube, or by the hand. */
export function useSeen(
  memory: Memory | null,
  lens: Lens = EVERYTHING,
  view: 'mode' | 'hand' = 'mode',
): Seen | null {
  return useMemo(() => {
    if (!memory) return null;
    return lens === EVERYTHING && view === 'mode' ? seeAll(memory) : see(memory, lens, view);
  }, [memory, lens, view]);
}
