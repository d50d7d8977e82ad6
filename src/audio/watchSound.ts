/**
 * The clock is looked at this often, and has stopped when it stood still for so many looks.
 * Two seconds: a busy device stalls for one and goes on by itself, and must not be accused of a call.
 */
const LOOK_MS = 250;
const LOOKS = 8;

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
    // A clock that has not begun has not stopped: the device may take its time to open.
    still = context.currentTime > last || context.currentTime === 0 ? 0 : still + 1;
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
