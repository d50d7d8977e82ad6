import { useCallback, useEffect, useRef, useState } from 'react';
import { Playback } from '@/audio';

export interface Sound {
  readonly samples: Int16Array | Float32Array;
  readonly sampleRate: number;
}

export interface PlaybackControls {
  readonly playing: boolean;
  /** Hears what `load` gives, once it is there; null is silence. Only what was asked for last is heard. */
  readonly play: (load: () => Promise<Sound | null>, loop?: boolean) => Promise<void>;
  readonly stop: () => void;
}

/** One thing heard at a time, and nothing any more once the page is left: not even what was still being loaded. */
export function usePlayback(): PlaybackControls {
  const [playing, setPlaying] = useState(false);
  const [playback] = useState(() => new Playback());
  const turn = useRef(0);
  const stop = useCallback(() => {
    turn.current++;
    playback.stop();
    setPlaying(false);
  }, [playback]);
  useEffect(() => stop, [stop]);
  const play = useCallback(
    async (load: () => Promise<Sound | null>, loop = false) => {
      stop();
      const mine = turn.current;
      const sound = await load();
      if (!sound || turn.current !== mine) return;
      setPlaying(true);
      playback.play(
        sound.samples,
        sound.sampleRate,
        () => {
          if (turn.current === mine) setPlaying(false);
        },
        loop,
      );
    },
    [playback, stop],
  );
  return { playing, play, stop };
}
