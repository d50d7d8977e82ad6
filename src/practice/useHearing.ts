import { useCallback, useEffect, useRef, useState } from 'react';
import { Playback } from '@/audio';
import type { Take } from '@/core/take';
import { loadAudio } from '@/store';

/** Playing a kept take back. */
export function useHearing(take: Take | null | undefined): { playing: boolean; toggle: () => void } {
  const [playing, setPlaying] = useState(false);
  const playback = useRef<Playback | null>(null);
  useEffect(() => () => playback.current?.stop(), []);
  const toggle = useCallback(() => {
    playback.current ??= new Playback();
    if (playing) {
      playback.current.stop();
      setPlaying(false);
    } else if (take) {
      void loadAudio(take.id).then((samples) => {
        if (!samples) return;
        setPlaying(true);
        playback.current?.play(samples, take.conditions.sampleRate, () => setPlaying(false));
      });
    }
  }, [playing, take]);
  return { playing, toggle };
}
