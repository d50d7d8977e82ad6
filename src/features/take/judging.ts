import { digestOf, type Digest } from '@/core/ledger';
import type { Take } from '@/core/take';
import { judge, limitsOf, say, type FaultKind, type Verdict } from '@/core/verdict';
import type { Settings } from '@/store';

/** A take judged by the player's limits of today: what is said of it, what was worst, what is kept of it. */
export interface Judged {
  readonly verdict: Verdict;
  readonly worst: FaultKind | null;
  readonly digest: Digest;
}

export function judged(take: Take, { level, ownLimits, naming, readAs }: Settings): Judged {
  const limits = limitsOf(level, ownLimits);
  const judgement = judge(take, limits);
  return {
    verdict: say(judgement, naming, readAs.pitch),
    worst: judgement.ranked[0]?.kind ?? null,
    digest: digestOf(take, limits, naming),
  };
}

export { digestOf };
