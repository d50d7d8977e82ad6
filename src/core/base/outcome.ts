/** What may fail in expected ways returns its failure as a value, with a problem that names the field and the remedy. */
export type Outcome<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: string };

export const success = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const failure = (problem: string): Outcome<never> => ({ ok: false, problem });
