import { findInstrument } from '@/core/instruments';
import { simulateTake, type FaultRates, type Player } from '@/core/lab';
import { digestOf, type Digest } from '@/core/ledger';
import { findFamily } from '@/core/music';
import { storedOf, type Setup, type StoredTake, type Take } from '@/core/take';
import { limitsOf } from '@/core/verdict';

/** A take that is to be played. */
export interface PlayJob {
  readonly id: string;
  /** ISO 8601. */
  readonly when: string;
  readonly seed: number;
  readonly instrumentId: string;
  readonly family: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly player: Partial<Player>;
  readonly faults: Partial<FaultRates>;
  readonly setup: Partial<Setup>;
  readonly remark: string;
  /** At home, where the room answers. */
  readonly atHome: boolean;
  readonly withSound: boolean;
  readonly sampleRate?: number;
}

/** A take as it is shipped. */
export interface Shipped extends Digest {
  readonly stored: StoredTake;
  readonly sound: Int16Array<ArrayBuffer> | null;
}

/** Plays a take as it was played that day, and measures it as the stand does. Runs in a thread of its own. */
export default function play(job: PlayJob): Shipped {
  const made = findFamily(job.family)?.make(findInstrument(job.instrumentId)!, job.values);
  if (!made?.ok) throw new Error(made?.problem ?? `no family ${job.family}`);
  const { take, heard } = simulateTake({
    id: job.id,
    when: new Date(job.when),
    score: made.value,
    player: job.player,
    faults: job.faults,
    seed: job.seed,
    tailSeconds: 0.8,
    ...(job.sampleRate !== undefined && { sampleRate: job.sampleRate }),
    ...(job.atHome && { heardIn: { room: 'living' as const, place: job.seed % 5 } }),
    setup: job.setup,
    school: 'air',
  });
  const kept: Take = { ...take, remark: job.remark, audio: job.withSound ? take.audio : null };
  return {
    stored: storedOf(kept),
    ...digestOf(kept, limitsOf('steady'), 'english'),
    sound: job.withSound ? heard.audio : null,
  };
}
