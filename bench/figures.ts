import { quantile } from 'd3-array';
import { valueOf, type FigureId, type Judgement } from '@/core/verdict';
import { playAndJudge } from '@/core/verdict/playAndJudge.testing';
import { Random } from '@/core/base';
import { findFamily } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import { steadyPlayer, type Player } from '@/core/lab';
import { FIVE } from './judging';

/** One figure of a family, and what is true of it for a player. */
interface Figure {
  readonly family: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly id: FigureId;
  readonly unit: string;
  readonly player: (random: Random) => Partial<Player>;
  readonly truth: (player: Player) => number;
}

/** The simulated player's way from the softest of a sweep to its loudest. */
const SWEEP_DB = 14;

const FIGURES: readonly Figure[] = [
  {
    family: 'tapers',
    values: { beats: 4 },
    id: 'pitch-per-level',
    unit: 'cents per 10 dB',
    player: (r) => ({ centsPer10Db: r.between(-15, 15) }),
    truth: (p) => p.centsPer10Db,
  },
  {
    family: 'swells',
    values: { beats: 3 },
    id: 'range',
    unit: 'dB',
    player: () => ({ levelWobbleDb: 0 }),
    truth: () => 14,
  },
  {
    family: 'blind-tuning',
    values: { notes: 4 },
    id: 'leaning',
    unit: 'cents',
    player: (r) => ({ offsetCents: r.between(-25, 25) }),
    truth: (p) => p.offsetCents,
  },
  {
    family: 'octave-check',
    values: { step: 5 },
    id: 'octaves',
    unit: 'cents',
    player: (r) => ({ offsetCents: r.between(-20, 20) }),
    truth: () => 0,
  },
  {
    family: 'drone-work',
    values: { interval: 'fifth' },
    id: 'interval',
    unit: 'cents',
    player: (r) => ({ offsetCents: r.between(-20, 20), wobbleCents: 0.5 }),
    truth: (p) => p.offsetCents - 1.955,
  },
  {
    family: 'subdivision-ladder',
    values: { top: '8' },
    id: 'offset',
    unit: 'ms',
    player: (r) => ({ latenessSeconds: r.between(-0.04, 0.08) }),
    truth: (p) => 1000 * p.latenessSeconds,
  },
  {
    family: 'subdivision-ladder',
    values: { top: '8' },
    id: 'attack-spread',
    unit: 'ms',
    player: (r) => ({ timingSpreadSeconds: r.between(0.008, 0.03) }),
    truth: (p) => 1000 * p.timingSpreadSeconds,
  },
  {
    family: 'breath-sweep',
    values: {},
    id: 'ring',
    unit: 'dB',
    player: (r) => ({ ringAboveDb: r.between(3, 11) }),
    truth: (p) => SWEEP_DB - (p.ringAboveDb ?? NaN),
  },
  {
    family: 'breath-sweep',
    values: {},
    id: 'in-tune',
    unit: 'dB',
    player: (r) => ({ centsPer10Db: 12, offsetCents: r.between(-13, -4) }),
    truth: (p) => SWEEP_DB + (10 * p.offsetCents) / p.centsPer10Db,
  },
  {
    family: 'bends',
    values: {},
    id: 'bend-down',
    unit: 'cents',
    player: (r) => ({ bends: { downCents: r.between(20, 90), upCents: 20 } }),
    truth: (p) => p.bends.downCents,
  },
  {
    family: 'dynamic-window',
    values: { step: 7 },
    id: 'window',
    unit: 'dB',
    player: () => ({}),
    truth: () => 25,
  },
];

const wholeValue = ({ figures }: Judgement, id: FigureId): number => valueOf(figures, id) ?? NaN;

/** Figures of families against what is true of the player, on five instruments. */
export function familyFigures(seeds: number) {
  return FIGURES.map(({ family, values, id, unit, player, truth }) => {
    const errors: number[] = [];
    let unknown = 0;
    for (const instrumentId of FIVE) {
      const instrument = findInstrument(instrumentId);
      const made = findFamily(family)?.make(instrument!, values);
      if (!instrument || !made?.ok) continue;
      // The drone itself is not in the recording: what is measured is the arithmetic over a heard pitch.
      const judged = { ...made.value, notes: made.value.notes.slice(0, 24) };
      for (let seed = 1; seed <= seeds; seed++) {
        const who = { ...steadyPlayer, ...player(new Random(seed * 31)) };
        const { judgement } = playAndJudge(judged, seed, who);
        const value = wholeValue(judgement, id);
        if (Number.isNaN(value)) unknown++;
        else errors.push(Math.abs(value - truth(who)));
      }
    }
    return {
      family,
      figure: id,
      unit,
      'median error': Number((quantile(errors, 0.5) ?? NaN).toFixed(2)),
      '95 %': Number((quantile(errors, 0.95) ?? NaN).toFixed(2)),
      takes: errors.length,
      unknown,
    };
  });
}
