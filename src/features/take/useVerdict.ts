import { useMemo } from 'react';
import { judge, limitsOf, say, type Judgement, type Verdict } from '@/core/verdict';
import type { Take } from '@/core/take';
import { useSettings } from '@/store';

/** A take judged by the player's limits of today, and what is said of it in the player's names. */
export function useVerdict(take: Take): { judgement: Judgement; verdict: Verdict } {
  const { settings } = useSettings();
  const { level, ownLimits, naming } = settings;
  const { pitch } = settings.readAs;
  const judgement = useMemo(() => judge(take, limitsOf(level, ownLimits)), [take, level, ownLimits]);
  const verdict = useMemo(() => say(judgement, naming, pitch), [judgement, naming, pitch]);
  return { judgement, verdict };
}
