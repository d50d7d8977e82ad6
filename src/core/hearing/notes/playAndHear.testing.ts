import type { Score } from '@/core/music';
import { listeningRange, type Instrument } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { noFaults, perform, steadyPlayer, type FaultRates } from '@/core/lab';
import { hearNotes } from '.';

export const RATE = 48_000;

/** For tests: a score played by a steady player with the given faults, and what is heard of it. */
export function playAndHear(score: Score, instrument: Instrument, seed: number, faults: Partial<FaultRates>) {
  const performance = perform({
    score,
    instrument,
    player: { ...steadyPlayer, riseSeconds: 0.03 },
    faults: { ...noFaults, ...faults },
    seed,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: 0.5,
    tailSeconds: 0.5,
  });
  const listener = new Listener(RATE, listeningRange(instrument));
  listener.push(performance.audio);
  return { performance, heard: hearNotes(listener.finish(), instrument) };
}
