import type { SoundSource } from './source';

/** Stands where an exercise is done without the instrument: nothing is listened to, and nothing claimed. */
export function silentSource(): SoundSource {
  let node: ConstantSourceNode | null = null;
  return {
    kind: 'none',
    name: 'Nothing',
    processing: [],
    followsBeat: true,
    start(context, destination) {
      node = new ConstantSourceNode(context, { offset: 0 });
      node.connect(destination);
      node.start();
    },
    onEnd() {
      // The beat ends it.
    },
    close() {
      node?.stop();
      node?.disconnect();
    },
  };
}
