import type { Conditions } from '@/core/take';
import { SourceProblem, type SoundSource } from './source';

const MUTED_MS = 400;
const ASKED_OFF = { echoCancellation: false, noiseSuppression: false, autoGainControl: false } as const;

/** Opens the microphone with all processing off, and reads back what the device really does. */
export async function openMicrophone(): Promise<SoundSource> {
  const devices = (navigator as { mediaDevices?: MediaDevices }).mediaDevices;
  if (!devices) {
    throw new SourceProblem(
      'The browser gives the microphone only to https pages and to localhost. Open this page there (see “From a phone” in the README).',
    );
  }
  const stream = await devices.getUserMedia({ audio: ASKED_OFF }).catch((error: unknown) => {
    throw new SourceProblem(whatWentWrong(error));
  });
  const track = stream.getAudioTracks()[0];
  if (!track) throw new SourceProblem('The microphone gave no sound. Check that it is plugged in.');
  let node: MediaStreamAudioSourceNode | null = null;
  return {
    kind: 'microphone',
    name: track.label || 'Microphone',
    processing: stillOn(track.getSettings()),
    followsBeat: true,
    start(context, destination) {
      node = context.createMediaStreamSource(stream);
      node.connect(destination);
    },
    onEnd(listener) {
      track.addEventListener('ended', () =>
        listener('The microphone went away; what was heard until then is kept.'),
      );
      // Some devices are mute for a moment while they wake; one that stays so hears nothing.
      const onMute = () => {
        setTimeout(() => {
          if (track.muted)
            listener('The microphone was muted; what was heard until then is kept. Switch it on to go on.');
        }, MUTED_MS);
      };
      track.addEventListener('mute', onMute);
      // It may have been mute before anybody listened: then nothing tells of it any more.
      if (track.muted) onMute();
    },
    close() {
      node?.disconnect();
      for (const each of stream.getTracks()) each.stop();
    },
  };
}

function stillOn(settings: MediaTrackSettings): Conditions['processing'] {
  const on: Conditions['processing'] = [];
  if (settings.autoGainControl) on.push('gain-control');
  if (settings.noiseSuppression) on.push('noise-suppression');
  if (settings.echoCancellation) on.push('echo-cancellation');
  return on;
}

function whatWentWrong(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') {
    return 'The microphone was not allowed. Allow it in the browser’s settings for this page, then try again.';
  }
  if (name === 'NotFoundError' || name === 'OverconstrainedError') {
    return 'No microphone was found. Plug one in or switch it on, then try again.';
  }
  if (name === 'NotReadableError' || name === 'AbortError') {
    return 'The microphone is in use elsewhere or did not answer. Close other programs that listen, then try again.';
  }
  return `The microphone could not be opened (${error instanceof Error ? error.message : String(error)}).`;
}
