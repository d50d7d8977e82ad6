import { useMemo } from 'react';
import { findFamily, type Family, type Score } from '@/core/music';
import { findInstrument, type Instrument } from '@/core/instruments';
import type { Outcome } from '@/core/base';
import { useSettings } from '@/store';

export interface Exercise {
  readonly family: Family;
  readonly instrument: Instrument;
  readonly values: Readonly<Record<string, unknown>>;
  readonly score: Outcome<Score>;
  readonly set: (part: Readonly<Record<string, unknown>>) => void;
  /** Back to what is usual for the instrument and the level. */
  readonly reset: () => void;
}

/** A family as the player has set it, for the instrument that is being played. */
export function useExercise(id: string): Exercise | null {
  const { settings, change } = useSettings();
  const { instrumentId, level, exercises, ownInstruments, naming } = settings;
  // Own instruments change without their id changing.
  const instrument = useMemo(
    () => findInstrument(instrumentId, ownInstruments),
    [instrumentId, ownInstruments],
  );
  const family = findFamily(id);
  const key = `${id}/${instrumentId}`;
  const stored = exercises[key];
  return useMemo(() => {
    if (!family || !instrument) return null;
    const values = { ...family.defaults(instrument, level), ...stored };
    const keep = (next: Record<string, unknown>) => void change({ exercises: { ...exercises, [key]: next } });
    return {
      family,
      instrument,
      values,
      score: family.make(instrument, values, level, naming),
      set: (part) => keep({ ...stored, ...part }),
      reset: () => keep({}),
    };
  }, [family, instrument, level, naming, stored, exercises, key, change]);
}
