import type { Random, Seconds } from '@/core/base';

/**
 * A smooth irregular line of unit RMS without trend: sinusoids of 0.3–2.6 Hz with random phases. Slower than any vibrato,
 * so that a player's unsteadiness is never periodic in the range where vibrato lives.
 */
export function wander(random: Random, duration: Seconds): (t: Seconds) => number {
  const parts = Array.from({ length: 9 }, (_, i) => ({
    rate: Math.max(0.3, 1.2 / Math.max(1, duration)) + 0.25 * i * random.between(0.9, 1.1),
    phase: random.between(0, 2 * Math.PI),
  }));
  const scale = Math.sqrt(2 / parts.length);
  return (t) => {
    let sum = 0;
    for (const { rate, phase } of parts) sum += Math.sin(2 * Math.PI * rate * t + phase);
    return scale * sum;
  };
}
