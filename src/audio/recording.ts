import { toInt16 } from '@/core/base';
import { SourceProblem, type SoundSource } from './source';

const LONGEST_MINUTES = 15;

/** @throws SourceProblem when the browser cannot read it, or it is too long. */
async function decode(context: BaseAudioContext, file: File): Promise<AudioBuffer> {
  const buffer = await context.decodeAudioData(await file.arrayBuffer()).catch(() => {
    throw new SourceProblem(
      `“${file.name}” is not a recording that this browser can read. Try WAV, MP3, Ogg or M4A.`,
    );
  });
  if (buffer.duration > LONGEST_MINUTES * 60) {
    throw new SourceProblem(
      `“${file.name}” is ${Math.round(buffer.duration / 60)} minutes long; ${LONGEST_MINUTES} is the most here.`,
    );
  }
  return buffer;
}

const DECODED_RATE = 48_000;

/** All of a recording, its channels mixed into one. @throws SourceProblem when it cannot be read, or is too long. */
export async function decodeRecording(
  file: File,
): Promise<{ samples: Int16Array<ArrayBuffer>; sampleRate: number }> {
  const buffer = await decode(new OfflineAudioContext(1, 1, DECODED_RATE), file);
  const channels = Array.from({ length: buffer.numberOfChannels }, (_, i) => buffer.getChannelData(i));
  const mixed = Float32Array.from(
    { length: buffer.length },
    (_, i) => channels.reduce((sum, channel) => sum + channel[i]!, 0) / channels.length,
  );
  return { samples: toInt16(mixed), sampleRate: buffer.sampleRate };
}

/** A recording that the browser can decode, played through at its own pace. */
export async function openRecording(context: BaseAudioContext, file: File): Promise<SoundSource> {
  const buffer = await decode(context, file);
  let node: AudioBufferSourceNode | null = null;
  let ended: ((interruption: string | null) => void) | null = null;
  return {
    kind: 'file',
    name: file.name,
    processing: [],
    followsBeat: false,
    start(running, destination) {
      node = new AudioBufferSourceNode(running, { buffer });
      node.connect(destination);
      node.connect(running.destination);
      node.onended = () => ended?.(null);
      node.start();
    },
    onEnd(listener) {
      ended = listener;
    },
    close() {
      if (node) node.onended = null;
      node?.disconnect();
    },
  };
}
