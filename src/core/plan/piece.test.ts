import { findInstrument } from '@/core/instruments';
import { slurOf } from '@/core/ledger/memory.testing';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { limitsOf } from '@/core/verdict';
import { drillsOf } from '.';

const clarinet = findInstrument('clarinet-bb')!;
const tune = scoreOfFamily('melody', 'clarinet-bb', { range: { low: 64, high: 86 } });
const drills = (crossings: Parameters<typeof drillsOf>[2]) =>
  drillsOf(tune, clarinet, crossings, limitsOf('steady'), 'steady').map(
    ({ values }) => `${String(values['from'])}-${String(values['to'])}`,
  );

test('each crossing of a piece is a drill, those first that failed most', () => {
  const plain = drills([]);
  expect(plain.length).toBeGreaterThan(1);
  expect(new Set(plain).size).toBe(plain.length);
  const last = plain[plain.length - 1]!;
  const [from, to] = last.split('-').map(Number) as [number, number];
  const failed = Array.from({ length: 6 }, () => slurOf(from, to, false));
  expect(drills(failed)[0]).toBe(last);
  const held = plain[0]!.split('-').map(Number) as [number, number];
  const clean = Array.from({ length: 6 }, () => slurOf(held[0], held[1], true));
  expect(drills(clean).at(-1)).toBe(plain[0]);
});
