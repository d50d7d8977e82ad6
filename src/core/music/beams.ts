import { TICKS, type Bar, type NoteType, type Token } from './bars';
import { pulseOf } from './metres';

/** What a beam does at a note. */
export type Beam = 'begin' | 'continue' | 'end' | 'forward hook' | 'backward hook';

const LEVELS: Partial<Record<NoteType, number>> = { eighth: 1, '16th': 2, '32nd': 3 };
const levelOf = ({ type }: Token): number => LEVELS[type] ?? 0;

/** Beams of each token of a bar, the highest first; those within a beat share one. */
export function beamsOf({ tokens, startTick, metre }: Bar): Beam[][] {
  const pulse = pulseOf(metre) * TICKS;
  const pulseIn = ({ startTick: at }: Token) => Math.floor((at - startTick) / pulse);
  const isBeamed = (token: Token | undefined): token is Token =>
    token !== undefined && token.note !== null && levelOf(token) > 0;
  const joins = (a: number, b: number, level: number) =>
    isBeamed(tokens[a]) &&
    isBeamed(tokens[b]) &&
    pulseIn(tokens[a]) === pulseIn(tokens[b]) &&
    levelOf(tokens[a]) >= level &&
    levelOf(tokens[b]) >= level;
  return tokens.map((token, i) => {
    if (!isBeamed(token)) return [];
    const isAlone = !joins(i - 1, i, 1) && !joins(i, i + 1, 1);
    if (isAlone) return [];
    return Array.from({ length: levelOf(token) }, (_, k): Beam => {
      const [before, after] = [joins(i - 1, i, k + 1), joins(i, i + 1, k + 1)];
      if (before) return after ? 'continue' : 'end';
      if (after) return 'begin';
      return joins(i - 1, i, 1) ? 'backward hook' : 'forward hook';
    });
  });
}
