/** What may fail in expected ways returns its failure as a value, with a problem that names the field and the remedy. */
export type Outcome<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: string };

/** What was hoped for. */
export const success = <T>(value: T): Outcome<T> => ({ ok: true, value });
/** What went wrong, in words for the player: which field, and what to do. */
export const failure = (problem: string): Outcome<never> => ({ ok: false, problem });
