import { useCallback, useEffect, useRef, useState } from 'react';
import { beatsToSeconds, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { noFaults, playerFor, typicalFault } from '@/core/lab';
import { AnalysisClient } from '@/worker';
import { usePlayback } from '@/features/sound';

const RATE = 32_000;
const LONGEST_SECONDS = 40;

export type ExampleState = 'silent' | 'preparing' | 'playing';
export type ExampleKind = 'clean' | 'faulty';

/** The beginning of a score, as far as anybody wants to listen to an example. */
function beginningOf(score: Score): Score {
  const notes = score.notes.filter((note) => beatsToSeconds(score, note.startBeat) < LONGEST_SECONDS);
  return { ...score, notes };
}

/** Hears a score played by the simulated player, cleanly or with the fault that is typical of it. */
export function useExample(score: Score | null, instrument: Instrument | null, a4: number) {
  const [preparing, setPreparing] = useState(false);
  const [kind, setKind] = useState<ExampleKind>('clean');
  const { playing, play: hear, stop: silence } = usePlayback();
  const client = useRef<AnalysisClient | null>(null);
  const stop = useCallback(() => {
    client.current?.close();
    client.current = null;
    setPreparing(false);
    silence();
  }, [silence]);
  useEffect(() => stop, [score, stop]);
  const play = (wanted: ExampleKind) => {
    stop();
    if (!score || !instrument || score.notes.length === 0) return;
    const { player, faults } =
      wanted === 'clean' ? { player: playerFor(score), faults: noFaults } : typicalFault(score);
    const worker = new AnalysisClient();
    client.current = worker;
    setKind(wanted);
    setPreparing(true);
    void hear(async () => {
      const samples = await worker.simulate({
        score: beginningOf(score),
        instrument,
        player,
        faults,
        seed: 7,
        sampleRate: RATE,
        a4,
        leadSeconds: 0.1,
        tailSeconds: 0.4,
      });
      if (client.current === worker) {
        worker.close();
        client.current = null;
        setPreparing(false);
      }
      return { samples, sampleRate: RATE };
    });
  };
  const state: ExampleState = playing ? 'playing' : preparing ? 'preparing' : 'silent';
  return { state, kind, play, stop, listenFor: score ? typicalFault(score).words : '' };
}
