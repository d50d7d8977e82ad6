import type { Score } from '@/core/music';
import { listeningRange, type Instrument } from '@/core/instruments';
import { hearNotes, type Heard } from '@/core/hearing/notes';
import { Listener } from '@/core/hearing/signal';
import { perform, steadyPlayer, type FaultRates, type Performance, type Player } from '@/core/lab';

export const RATE = 48_000;

export function play(
  instrument: Instrument,
  score: Score,
  seed: number,
  faults?: FaultRates,
  player: Partial<Player> = {},
): Performance {
  return perform({
    score,
    instrument,
    player: { ...steadyPlayer, riseSeconds: 0.03, ...player },
    ...(faults && { faults }),
    seed,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: 0.5,
    tailSeconds: 0.5,
  });
}

export function hear(audio: Float32Array, instrument: Instrument, rate = RATE): Heard {
  const listener = new Listener(rate, listeningRange(instrument));
  listener.push(audio);
  return hearNotes(listener.finish(), instrument);
}
