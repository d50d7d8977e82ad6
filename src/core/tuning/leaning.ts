import type { Cents } from './units';

/** `6 low`, `true`, `11 high`: a tendency as a player says it. */
export function highOrLow(cents: Cents): string {
  const whole = Math.round(cents);
  if (whole === 0) return 'true';
  return `${Math.abs(whole)} ${whole > 0 ? 'high' : 'low'}`;
}
