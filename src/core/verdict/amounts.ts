import { leaning } from '@/core/tuning';
import type { Amount, Fault } from './fault';
import { FIGURES, type FigureId } from './figures';
import { fixed, sized } from './words';

/** Units as they are said within a sentence, where the table's says more. */
const SPOKEN: Readonly<Partial<Record<FigureId, string>>> = {
  vibrato: 'cents',
  air: 'dB',
  'level-wobble': 'dB',
  'level-spread': 'dB',
  latency: 'ms',
  'attack-offset': 'ms',
  offset: 'ms',
  interval: 'cents',
  octave: 'cents',
  octaves: 'cents',
  sameness: 'steps',
  'anchor-cents': 'cents',
  'anchor-steps': 'steps',
  line: 'dB',
  window: 'dB',
  'beats-of-note': 'times a second',
};
/** Figures that are told as a rate and seen as a movement over the note. */
const ONE_DECIMAL: readonly FigureId[] = [
  'drift',
  'level-wobble',
  'after',
  'stopped',
  'cut-short',
  'fade',
  'wobble',
  'line-off',
  'hold-pure',
  'unlike',
  'beats-of-note',
  'anchor-steps',
  'tempo',
];

/** `11 cents`: a fault's size in words. */
export function amountText({ figure, value }: Amount): string {
  // A loud that was softer than the soft is not so many decibels louder.
  if (figure === 'window-note') return `${fixed(value, 0)} dB`;
  if (figure === 'scoop') return leaning(value);
  return sized(value, SPOKEN[figure] ?? FIGURES[figure].unit, ONE_DECIMAL.includes(figure) ? 1 : 0);
}

/** The limit that was passed, for the sentence after: empty where there is none. */
export function limitText({ amount }: Fault): string {
  if (!amount || amount.limit === null) return '';
  return `your limit is ${sized(amount.limit, SPOKEN[amount.figure] ?? FIGURES[amount.figure].unit, Number.isInteger(amount.limit) ? 0 : 1)}`;
}
