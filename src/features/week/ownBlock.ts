import type { Instrument } from '@/core/instruments';
import type { Level } from '@/core/music';
import { scoreOfBlock, secondsOf, type Block } from '@/core/plan';

/** An exercise that the player puts into a day, as it usually is; null: this instrument does not have it. */
export function ownBlock(family: string, instrument: Instrument, level: Level): Block | null {
  const made = scoreOfBlock({ family, values: {}, repeats: 1 }, instrument, level, 'english');
  if (!made.ok) return null;
  return {
    id: `own/${family}`,
    family,
    values: {},
    repeats: 1,
    seconds: Math.round(secondsOf(made.value)),
    why: { of: 'own' },
    tempoMoved: null,
    locked: false,
    skipped: false,
  };
}
