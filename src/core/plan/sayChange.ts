import type { SinceLast } from '@/core/ledger';
import { fixed, sized } from '@/core/verdict';
import { sinceText } from './say';

/** A value of a figure as it reads: `7 of 9 clean`, `4.2 cents`. */
function valueText({ followed, of }: SinceLast, value: number, which: 'now' | 'before'): string {
  if (of) return `${Math.round((value * of[which]) / 100)} of ${of[which]} clean`;
  const number = fixed(value, followed.decimals);
  return followed.unit === 'cents' ? sized(Number(number), 'cents') : `${number} ${followed.unit}`;
}

/** What became of an exercise since the time before. @param weekday of today, Monday is 0. */
export function sayChange(since: SinceLast, daysAgo: number, weekday: number): string {
  const when = sinceText(daysAgo, weekday);
  const label = since.of ? '' : `${since.followed.label}: `;
  const told = `${label}${valueText(since, since.now, 'now')}, ${valueText(since, since.before, 'before')} ${when}`;
  switch (since.verdict) {
    case 'better':
      return `${told}: better.`;
    case 'worse':
      return `${told}: not as well.`;
    case 'same':
      return `${told}: no more apart than chance can do.`;
    case 'untold':
      return since.setOtherwise ? `${told}, when the exercise was set otherwise.` : `${told}.`;
  }
}
