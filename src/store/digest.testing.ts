import type { Outcome } from '@/core/base';
import { digestOf } from '@/core/ledger';
import { storedOf, takeFromStored } from '@/core/take';
import { limitsOf } from '@/core/verdict';
import type { Digested, Lying } from './upkeep';

/** For tests: what the worker does with stored takes. */
export const digest = (takes: readonly Lying[]): Promise<Outcome<Digested>[]> =>
  Promise.resolve(
    takes.map((lying) => {
      const read = takeFromStored(lying, []);
      if (!read.ok) return read;
      const value = { stored: storedOf(read.value), ...digestOf(read.value, limitsOf('steady'), 'english') };
      return { ok: true as const, value };
    }),
  );
