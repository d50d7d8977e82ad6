/** The clock is looked at this often, and has stopped when it stood still for so many looks. */
const LOOK_MS = 250;
const LOOKS = 3;

export const SOUND_STOPPED =
  'The sound of this device was stopped: by a call, another program, or a device that went away. What was heard until then is kept.';

/**
 * Says when a context stops sounding without having been asked to: some devices tell, others only let its clock stand still.
 * @returns a way to stop watching.
 */
export function watchSound(context: AudioContext, onStopped: () => void): () => void {
  let last = context.currentTime;
  let still = 0;
  const timer = setInterval(() => {
    still = context.currentTime > last ? 0 : still + 1;
    last = context.currentTime;
    if (still >= LOOKS) stopped();
  }, LOOK_MS);
  const changed = () => {
    if (context.state !== 'running') stopped();
  };
  context.addEventListener('statechange', changed);
  const unwatch = () => {
    clearInterval(timer);
    context.removeEventListener('statechange', changed);
  };
  const stopped = () => {
    unwatch();
    onStopped();
  };
  return unwatch;
}
