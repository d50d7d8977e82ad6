import type { Score } from '@/core/music';
import { steadyPlayer, type FaultRates, type Player } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import type { Take } from '@/core/take';
import { judge, limitsOf, say } from '.';

/** For tests and the bench: a score played, heard as the stand hears it, and judged. */
export function playAndJudge(
  score: Score,
  seed: number,
  player: Player = steadyPlayer,
  faults: Partial<FaultRates> = {},
) {
  const played = sharedTake({ score, seed, player: { ...player, riseSeconds: 0.03 }, faults });
  return { ...played, ...judged(played.take), score: played.take.score };
}

function judged(take: Take) {
  const judgement = judge(take, limitsOf('steady'));
  return { judgement, verdict: say(judgement, 'english') };
}
