import type { Score } from '@/core/music';
import { listeningRange, type Instrument } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { noFaults, perform, steadyPlayer, type FaultRates, type TrueNote } from '@/core/lab';
import { hearNotes, type Heard, type NoteEvent } from '.';

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

/** Events of notes whose music is known, as a verdict has them: a faint mode at the start of a slurred note is one. */
export const eventsIn = ({ events, notes, transitions }: Heard, played: readonly TrueNote[]): NoteEvent[] => [
  ...events,
  ...transitions.flatMap(({ to, faintBlip }) => {
    const { startSeconds } = notes[to]!;
    const isIt = (note: TrueNote) => Math.abs(note.startSeconds - startSeconds) < 0.1;
    return faintBlip && played.find(isIt)?.slurred ? [faintBlip] : [];
  }),
];
