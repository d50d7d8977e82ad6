import type { Trace } from '@/core/take';
import { EMPTY_TRACE } from '@/core/take/takes.testing';
import { ribbonPath } from './ribbonPath';

test('the ribbon of a note has a hole where the pitch is unknown, and ends with the note', () => {
  const trace: Trace = {
    ...EMPTY_TRACE,
    stepSeconds: 0.1,
    pitchMidi: [69, 69, 69.05, null, 69, 69, 69, 70],
    levelDb: Array.from({ length: 8 }, () => -20),
  };
  const view = { width: 80, height: 40, fromSeconds: 0, toSeconds: 0.8, middleMidi: 69, reachCents: 25 };
  const path = ribbonPath(trace, { startSeconds: 0, endSeconds: 0.7 }, view);
  expect(path.match(/M/g)).toHaveLength(2);
  const numbers = [...path.matchAll(/(-?[\d.]+),(-?[\d.]+)/g)];
  for (const [, x] of numbers) expect(Number(x)).toBeLessThanOrEqual(66);
});
