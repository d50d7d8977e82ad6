import type { Measure } from './measures';

/** No part that anyone practises from is longer; repeats beyond it are left out. */
const MOST_MEASURES = 5000;

type Marks = Pick<Measure, 'repeatsFrom' | 'times' | 'voltas' | 'sign' | 'jump'>;

/** The last of voltas that stand side by side: the one that is taken after a jump back. */
const isLastVolta = (measures: readonly Marks[], at: number): boolean => {
  const own = measures[at]!.voltas;
  let next = at;
  while (next < measures.length && sameVolta(measures[next]!.voltas, own)) next++;
  return (measures[next]?.voltas.length ?? 0) === 0;
};
const sameVolta = (a: readonly number[], b: readonly number[]) => a.join() === b.join();

/**
 * The order in which measures are played: repeats with their voltas, then from the beginning or from the sign, without repeats, to
 * the end that is written or over to the coda. @returns indices of measures.
 */
export function playedOut(measures: readonly Marks[]): number[] {
  const order: number[] = [];
  let from = 0;
  let pass = 1;
  let jumped = false;
  for (let at = 0; at < measures.length && order.length < MOST_MEASURES;) {
    const { repeatsFrom, times, voltas, jump } = measures[at]!;
    const before = measures[at - 1];
    const leavesVolta = before && before.voltas.length > 0 && voltas.length === 0;
    if ((repeatsFrom && at !== from) || (leavesVolta && at > from)) {
      from = at;
      pass = 1;
    }
    const isTaken = voltas.length === 0 || (jumped ? isLastVolta(measures, at) : voltas.includes(pass));
    if (!isTaken) {
      at++;
      continue;
    }
    order.push(at);
    if (jumped && jump === 'fine') break;
    const coda = measures.findIndex(({ sign }, i) => sign === 'coda' && i > at);
    if (jumped && jump === 'tocoda' && coda >= 0) {
      at = coda;
      continue;
    }
    if (!jumped && times > 1) {
      const last = voltas.length > 0 ? Math.max(...voltas) + 1 : times;
      if (pass < last) {
        pass++;
        at = from;
        continue;
      }
      from = at + 1;
      pass = 1;
    }
    if (!jumped && (jump === 'dacapo' || jump === 'dalsegno')) {
      const segno = measures.findIndex(({ sign }) => sign === 'segno');
      jumped = true;
      at = jump === 'dalsegno' && segno >= 0 ? segno : 0;
      continue;
    }
    at++;
  }
  return order;
}
