import { SourceProblem } from './source';

const WORKLET_URL = '/capture-worklet.js';
const PATIENCE_MS = 8000;

/**
 * The audio clock, running, with what captures sound loaded into it. Call it from a touch or a key, or the browser keeps
 * the sound back.
 * @throws SourceProblem when the device's sound does not start: some wait for it without ever saying so.
 */
export async function openContext(): Promise<AudioContext> {
  const context = new AudioContext({ latencyHint: 'interactive' });
  let patience: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    patience = setTimeout(
      () =>
        fail(
          new SourceProblem(
            'The sound of this device does not start. Another program or a call may hold it: end that, and begin again.',
          ),
        ),
      PATIENCE_MS,
    );
  });
  try {
    await Promise.race([context.resume(), late]);
    await context.audioWorklet.addModule(WORKLET_URL);
    return context;
  } catch (error) {
    closeContext(context);
    throw error;
  } finally {
    clearTimeout(patience);
  }
}

/** Ends a context, also one that the device has closed by itself. */
export function closeContext(context: AudioContext): void {
  if (context.state !== 'closed') void context.close().catch(() => undefined);
}

/** What takes the samples out of `context`; they come through the port that is given to it. */
export const captureIn = (context: AudioContext): AudioWorkletNode =>
  new AudioWorkletNode(context, 'gold-reed-capture', { numberOfOutputs: 0 });
