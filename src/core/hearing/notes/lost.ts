import type { Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';

/** What a loss may have made, and what it may have hidden. */
const BESIDE: Seconds = 0.03;

/** Whether a stretch lies at sound that the device lost: nothing is told of it. */
export function isLost(
  { startSeconds, endSeconds }: { readonly startSeconds: Seconds; readonly endSeconds: Seconds },
  { lost, startSeconds: origin }: Pick<Frames, 'lost' | 'startSeconds'>,
): boolean {
  return lost.some(
    (loss) =>
      loss.startSeconds + origin < endSeconds + BESIDE && loss.endSeconds + origin > startSeconds - BESIDE,
  );
}

/** The same for a stretch of frames. */
export const areLost = (from: number, to: number, frames: Frames): boolean =>
  isLost(
    {
      startSeconds: frames.startSeconds + from * frames.hopSeconds,
      endSeconds: frames.startSeconds + to * frames.hopSeconds,
    },
    frames,
  );
