import type { Cents } from '@/core/base';

/** `6 cents low`, `1 cent high`, `in tune`: where a pitch sits, as a player says it. */
export function leaning(cents: Cents): string {
  const whole = Math.round(Math.abs(cents));
  if (whole === 0) return 'in tune';
  return `${whole} ${whole === 1 ? 'cent' : 'cents'} ${cents > 0 ? 'high' : 'low'}`;
}

/** `6 low`: the same where the unit stands elsewhere and every letter counts. */
export function shortLeaning(cents: Cents): string {
  const whole = Math.round(Math.abs(cents));
  return whole === 0 ? 'in tune' : `${whole} ${cents > 0 ? 'high' : 'low'}`;
}
