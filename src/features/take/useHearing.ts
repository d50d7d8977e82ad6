import { useCallback } from 'react';
import type { Take } from '@/core/take';
import { loadAudio } from '@/store';
import { usePlayback } from '@/features/sound';

/** Playing a kept take back. */
export function useHearing(take: Take | null | undefined): { playing: boolean; toggle: () => void } {
  const { playing, play, stop } = usePlayback();
  const toggle = useCallback(() => {
    if (playing) stop();
    else if (take)
      void play(async () => {
        const samples = await loadAudio(take.id);
        return samples && { samples, sampleRate: take.conditions.sampleRate };
      });
  }, [playing, play, stop, take]);
  return { playing, toggle };
}
