import type { Midi } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { isClean, type Crossing } from '@/core/ledger';
import { placesIn, type Dynamic, type Level, type Score } from '@/core/music';
import type { Limits } from '@/core/verdict';
import { blockOf, type Block } from './block';

/** So many drills are a day's work. */
const MOST = 8;
/** Before anything was heard a slur is as likely clean as not, as if it had been tried twice. */
const PRIOR = { clean: 1, of: 2 };

interface Crossed {
  readonly from: Midi;
  readonly to: Midi;
  readonly dynamic: Dynamic;
}

/**
 * Drills of a piece: every crossing of a break that it asks for, each once, those first that were clean least often when they were
 * played before. @param crossings of takes on this instrument.
 */
export function drillsOf(
  score: Score,
  instrument: Instrument,
  crossings: readonly Crossing[],
  limits: Limits,
  level: Level,
): Block[] {
  const asked = placesIn(score, instrument, 'english').flatMap(({ kind, note }): Crossed[] => {
    const [before, here] = [score.notes[note - 1], score.notes[note]];
    return kind === 'seam' && before && here
      ? [{ from: before.written, to: here.written, dynamic: here.dynamic }]
      : [];
  });
  const each = asked.filter(
    ({ from, to }, i) => asked.findIndex((other) => other.from === from && other.to === to) === i,
  );
  const cleanShare = ({ from, to }: Crossed): number => {
    const known = crossings
      .filter((crossing) => crossing.from === from && crossing.to === to)
      .map((crossing) => isClean(crossing, limits))
      .filter((clean) => clean !== null);
    return (known.filter(Boolean).length + PRIOR.clean) / (known.length + PRIOR.of);
  };
  const width = ({ from, to }: Crossed) => Math.abs(to - from);
  return [...each]
    .sort((a, b) => cleanShare(a) - cleanShare(b) || width(b) - width(a))
    .slice(0, MOST)
    .flatMap(({ from, to, dynamic }) => {
      const block = blockOf('just-this-seam', { from, to, dynamic, times: 5 }, instrument, level);
      return block.ok ? [{ ...block.value, id: `piece/${from}-${to}` }] : [];
    });
}
