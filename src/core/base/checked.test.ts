import * as z from 'zod';
import { checked } from '.';

const schema = z.object({
  name: z.string().min(1).max(5),
  days: z.array(z.number().int().min(1).max(7)),
  pitch: z.number({ error: 'must be a number of Hz' }),
  step: z.number().multipleOf(2),
  kind: z.enum(['low', 'high']),
  open: z.boolean(),
});
const good = { name: 'reed', days: [1, 7], pitch: 440, step: 2, kind: 'low', open: true };
const problem = (change: Record<string, unknown>) => {
  const read = checked(schema, { ...good, ...change });
  return read.ok ? 'taken' : read.problem;
};

it('what has come from outside is taken, or its field is named with what it must be', () => {
  expect(checked(schema, good)).toEqual({ ok: true, value: good });
  expect(checked(schema, 'hello', 'the plan')).toEqual({ ok: false, problem: 'the plan: must be a record' });
  expect(checked(schema, undefined)).toEqual({ ok: false, problem: 'it: is missing' });
  expect(problem({ name: undefined })).toBe('name: is missing');
  expect(problem({ name: '' })).toBe('name: must not be shorter than 1');
  expect(problem({ name: 'far too long' })).toBe('name: must not be longer than 5');
  expect(problem({ days: 3 })).toBe('days: must be a list');
  expect(problem({ days: [1, 8] })).toBe('days.1: must be 7 or less');
  expect(problem({ days: [1, 1.5] })).toBe('days.1: must be a whole number');
  expect(problem({ kind: 'middle' })).toBe('kind: must be low or high');
  expect(problem({ open: 'yes' })).toBe('open: must be yes or no (true or false)');
});

it('a schema that has its own words keeps them', () => {
  expect(problem({ pitch: 'loud' })).toBe('pitch: must be a number of Hz');
  expect(problem({ step: 3 })).toBe('step: must be a multiple of 2');
});
