import type { Midi } from '@/core/base';
import type { Turn } from './seamMap';

/** `C5 up to C♯5`. */
export const seamTitle = (from: Midi, to: Midi, nameOf: (written: Midi) => string): string =>
  `${nameOf(from)} ${to > from ? 'up' : 'down'} to ${nameOf(to)}`;

/** What is said once, at the take that did it. */
export function turnSentence({ from, to, turned }: Turn, nameOf: (written: Midi) => string): string {
  const seam = seamTitle(from, to, nameOf);
  return turned === 'gold'
    ? `${seam} has turned to gold: it holds more than nine times in ten, by all that was heard of it.`
    : `${seam} has opened again: it was gold, and holds less than it did.`;
}
