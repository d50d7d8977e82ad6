import type { Played } from '@/core/ledger';
import { home, readAheadOf } from './opened';
import { readSettings, type Settings } from './settings';
import { storedRunning } from './useDesk';
import { readLedgerAhead } from './useLedger';
import { storedPlans, storedSession } from './usePlans';

/** Reads what the main pages show before they are gone to. */
export async function readAhead(): Promise<{ settings: Settings; played: readonly Played[] }> {
  const settings = await readSettings((await home()).storage);
  const played = await readLedgerAhead(settings.instrumentId);
  await Promise.all([readAheadOf(storedPlans), readAheadOf(storedSession), readAheadOf(storedRunning)]);
  return { settings, played };
}
