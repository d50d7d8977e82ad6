import type { Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import type { Player, RoomName } from '@/core/lab';
import type { AnalysisClient } from '@/worker';
import type { SoundSource } from './source';

const LEAD_SECONDS = 0.25;
const TAIL_SECONDS = 2.5;

export interface SimulatedOptions {
  readonly client: AnalysisClient;
  readonly score: Score;
  readonly instrument: Instrument;
  readonly player: Player;
  readonly seed: number;
  /** The room that it is heard in; none for a dry sound. */
  readonly heardIn?: RoomName | undefined;
  readonly a4: number;
  readonly sampleRate: number;
}

/** The simulated player: it plays the score from the first beat, is heard, and goes the way that a microphone goes. */
export async function openSimulatedPlayer(options: SimulatedOptions): Promise<SoundSource> {
  const { client, heardIn, ...rest } = options;
  const samples = await client.simulate({
    ...rest,
    ...(heardIn && { heardIn }),
    leadSeconds: LEAD_SECONDS,
    tailSeconds: TAIL_SECONDS,
  });
  let node: AudioBufferSourceNode | null = null;
  return {
    kind: 'simulated',
    name: 'Simulated player',
    processing: [],
    followsBeat: true,
    start(context, destination, firstBeat) {
      const buffer = context.createBuffer(1, samples.length, options.sampleRate);
      buffer.copyToChannel(samples, 0);
      const playing = new AudioBufferSourceNode(context, { buffer });
      playing.connect(destination);
      playing.connect(context.destination);
      playing.start(
        firstBeat === null ? context.currentTime : Math.max(context.currentTime, firstBeat - LEAD_SECONDS),
      );
      node = playing;
    },
    onEnd() {
      // It falls silent by itself, and whoever follows the music ends the take.
    },
    close() {
      node?.stop();
      node?.disconnect();
    },
  };
}
