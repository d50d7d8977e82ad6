import type { Cents, Hertz } from '@/core/base';
import { centsBetween } from '@/core/tuning';
import { Continuity, QUICK_PARTIALS } from './continuity';
import type { Frames } from './frames';

/** Two pitches further apart are of two tones. */
const ANOTHER: Cents = 100;

/**
 * Reads what carries on once more where a frame was followed by another pitch than the one that was settled on afterwards: its
 * partials were those of no tone.
 * @param readBy the pitch that a frame was followed by, 0 where it has to be read again in any case. Changes `quickPartials`, `novelty` and `growthDb`.
 */
export function readAgain(frames: Frames, readBy: (frame: number) => Hertz): void {
  const { count, f0, quickPartials, novelty, growthDb, sound, settings } = frames;
  const { hop, pitchDecimation, pitch, hopSeconds, minHz } = settings;
  const otherwise = (i: number) => {
    const by = readBy(i);
    return by >= 0 && f0[i]! > 0 && !(Math.abs(centsBetween(f0[i]!, by)) <= ANOTHER);
  };
  for (let from = 0; from < count; from++) {
    if (!otherwise(from)) continue;
    let to = from + 1;
    while (to < count && otherwise(to)) to++;
    const continuity = new Continuity(pitch.rate, hopSeconds, minHz);
    // What a frame tells is of the one before it, held against the one before that.
    for (let i = Math.max(0, from - 2); i < Math.min(count, to + 2); i++) {
      const length = continuity.lengthFor(f0[i]!);
      const centre = (i * hop) / pitchDecimation;
      const start = Math.round(centre - length / 2);
      if (start < 0 || start + length > sound.length) continue;
      continuity.analyse(sound.subarray(start, start + length), centre - start, f0[i]!);
      if (i >= from && i < to) quickPartials.set(continuity.amplitudes, i * QUICK_PARTIALS);
      if (i < from || i === 0) continue;
      novelty[i - 1] = continuity.novelty;
      growthDb[i - 1] = continuity.growthDb;
    }
    from = to;
  }
}
