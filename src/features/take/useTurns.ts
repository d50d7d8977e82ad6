import { useDeferredValue, useMemo } from 'react';
import { turnsOf, type Turn } from '@/core/ledger';
import { limitsOf } from '@/core/verdict';
import { instrumentIn, usePlayed, useSettings } from '@/store';

/** Seams of an instrument that turned to gold, or opened again, within the last half year; oldest first. */
export function useTurns(instrumentId: string): readonly Turn[] {
  const { settings } = useSettings();
  const { level, ownLimits } = settings;
  const { data } = usePlayed(instrumentId, false);
  // It is told of besides what the page is for, and does not keep that waiting.
  const played = useDeferredValue(data ?? null, null);
  const instrument = instrumentIn(settings, instrumentId);
  return useMemo(
    () => (played && instrument ? turnsOf(played, instrument, limitsOf(level, ownLimits)) : []),
    [played, instrument, level, ownLimits],
  );
}
