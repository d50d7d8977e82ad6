import { findInstrument } from '@/core/instruments';
import { families, needsOf } from '.';

const clarinet = findInstrument('clarinet-bb')!;
const needs = (id: string, values = {}) => {
  const made = families.find((family) => family.id === id)!.make(clarinet, values);
  if (!made.ok) throw new Error(made.problem);
  return needsOf(made.value);
};

it('says what is needed besides the instrument, and of free playing only what was asked for', () => {
  expect(needs('long-tone')).toEqual([]);
  expect(needs('drone-work')).toContain('drone');
  expect(needs('free-playing')).toEqual([]);
  expect(needs('free-playing', { drone: true })).toEqual(['drone']);
  expect(needs('air-drills')).toEqual(['no-instrument']);
});
