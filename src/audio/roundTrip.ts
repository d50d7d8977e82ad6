import { CLICK_SECONDS, clickSamples, locateClicks } from '@/core/hearing/signal';
import { closeContext, captureIn, openContext } from './context';
import { openMicrophone } from './microphone';
import type { SoundSource } from './source';

const CLICKS = 8;
const APART_SECONDS = 0.45;
const LEAD_SECONDS = 0.4;
const TAIL_SECONDS = 0.6;

export interface MeasuredRoundTrip {
  readonly device: string;
  /** Loudspeaker to microphone; null when the clicks were not heard. */
  readonly seconds: number | null;
}

/**
 * Plays clicks and listens for them: how long sound takes from being asked for to being in the recording.
 * @throws SourceProblem when the microphone cannot be had.
 */
export async function measureRoundTrip(): Promise<MeasuredRoundTrip> {
  const context = await openContext();
  let source: SoundSource | null = null;
  try {
    source = await openMicrophone();
    const capture = captureIn(context);
    const { port1, port2 } = new MessageChannel();
    const pieces: { frame: number; samples: Float32Array }[] = [];
    port2.onmessage = ({ data }) => pieces.push(data as { frame: number; samples: Float32Array });
    capture.port.postMessage({ out: port1 }, [port1]);
    source.start(context, capture, null);
    const first = context.currentTime + LEAD_SECONDS;
    const samples = clickSamples(context.sampleRate, true);
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    const times = Array.from({ length: CLICKS }, (_, i) => first + i * APART_SECONDS);
    const last = times.map((seconds) => {
      const node = new AudioBufferSourceNode(context, { buffer });
      node.connect(context.destination);
      node.start(seconds);
      return node;
    })[CLICKS - 1]!;
    await new Promise<void>((done) => {
      last.onended = () => setTimeout(done, 1000 * (TAIL_SECONDS + CLICK_SECONDS));
    });
    const origin = pieces[0]?.frame ?? 0;
    const length = pieces.reduce(
      (sum, piece) => Math.max(sum, piece.frame - origin + piece.samples.length),
      0,
    );
    const heard = new Float32Array(length);
    for (const piece of pieces) heard.set(piece.samples, piece.frame - origin);
    const seconds = locateClicks(
      heard,
      context.sampleRate,
      times.map((time) => ({ seconds: time - origin / context.sampleRate, accent: true })),
    );
    return { device: source.name, seconds };
  } finally {
    source?.close();
    closeContext(context);
  }
}
