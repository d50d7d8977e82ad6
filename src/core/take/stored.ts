import { failure, readRecord, success, type Outcome } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { takeKindFor } from './oldTakes';
import { packTrace, unpackTrace } from './packing';
import type { Take } from './take';

/** A take as it is stored: what is read to judge it, and the curves that are only drawn and looked at along the way. */
export interface StoredTake {
  readonly take: string;
  readonly trace: string;
}

/** A take as it is written to storage: its text, and its trace packed apart from it. */
export function storedOf({ trace, ...take }: Take): StoredTake {
  return { take: JSON.stringify(take), trace: packTrace(trace) };
}

/**
 * Reads a stored take of any version; the first two had their trace within. Never throws.
 * @param own instruments that the player has or had: the oldest takes only named theirs.
 */
export function takeFromStored(
  { take, trace }: { take: string; trace: string | null },
  own: readonly Instrument[],
): Outcome<Take> {
  if (trace === null) return readRecord(takeKindFor(own), take);
  const curves = unpackTrace(trace);
  if (!curves.ok) return curves;
  const whole = withTrace(take, curves.value);
  return whole.ok ? readRecord(takeKindFor(own), whole.value) : whole;
}

function withTrace(text: string, trace: Take['trace']): Outcome<Record<string, unknown>> {
  try {
    return success({ ...(JSON.parse(text) as Record<string, unknown>), trace });
  } catch {
    return failure('take: the stored text is damaged');
  }
}
