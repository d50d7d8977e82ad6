import { SourceProblem, type SoundSource } from './source';

const LONGEST_MINUTES = 15;

/** A recording that the browser can decode, played through at its own pace. */
export async function openRecording(context: BaseAudioContext, file: File): Promise<SoundSource> {
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
