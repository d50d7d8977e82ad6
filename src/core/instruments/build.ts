import { noteNumber } from '@/core/tuning';
import type { Clef, HandRule, Instrument, Kind, Register, Tendency, Tube } from './instrument';

/** `[id, name, lowest note, mode, more modes as [from note, mode] …]`, each register reaching up to the next. */
export type RegisterRow = readonly [
  id: string,
  name: string,
  low: string,
  mode: number,
  ...more: (readonly [string, number])[],
];
/** `[low, high, mark, what the hand does]`; a flick names besides the note that it is slurred up from at most. */
export type HandRow = readonly [low: string, high: string, mark: string, text: string, from?: string];
/** `[low, high, cents, why, loudness]`. */
export type TendencyRow = readonly [
  low: string,
  high: string,
  cents: number,
  about: string,
  loudness?: Tendency['loudness'],
];

export interface InstrumentRow {
  readonly id: string;
  readonly name: string;
  readonly kind: Kind;
  readonly series?: 'harmonic' | 'odd';
  readonly clef?: Clef;
  readonly upperClef?: readonly [Clef, string];
  readonly transposition?: number;
  readonly home: string;
  readonly top: string;
  readonly registers: readonly RegisterRow[];
  readonly tube: 'open' | 'closed' | readonly [centsPerMm: number, at: string];
  readonly hands?: readonly HandRow[];
  readonly tendencies?: readonly TendencyRow[];
  readonly breathSeconds: number;
  readonly cautions?: readonly string[];
  readonly step?: 1 | 0.5;
  readonly plainKeys?: readonly number[];
  readonly usualLow?: string;
  readonly altissimoFrom?: string;
  readonly testNote?: string;
  /** Marks of hands that exercises leave aside until they are asked for. */
  readonly aside?: readonly string[];
  /** Highest note below, lowest above. */
  readonly handBreak?: readonly [string, string];
}

const tubeOf = (tube: InstrumentRow['tube']): Tube =>
  typeof tube === 'string'
    ? { model: tube }
    : { model: 'cone', centsPerMm: tube[0], at: noteNumber(tube[1]) };

const handOf = (
  [low, high, mark, text, from]: HandRow,
  index: number,
  aside: readonly string[],
): HandRule => ({
  id: `hand-${index + 1}`,
  low: noteNumber(low),
  high: noteNumber(high),
  mark,
  text,
  when: from === undefined ? 'always' : 'flick',
  ...(from !== undefined && { from: noteNumber(from) }),
  ...(aside.includes(mark) && { aside: true }),
});

const tendencyOf = ([low, high, cents, about, loudness = 'any']: TendencyRow): Tendency => ({
  low: noteNumber(low),
  high: noteNumber(high),
  cents,
  about,
  loudness,
});

/** Reads the shorthand that the catalogue is written in. */
export function instrument(row: InstrumentRow): Instrument {
  const lows = row.registers.map((r) => noteNumber(r[2]));
  const top = noteNumber(row.top);
  const registers = row.registers.map(([id, name, , mode, ...more], i): Register => {
    const low = lows[i] ?? 0;
    const next = lows[i + 1];
    return {
      id,
      name,
      low,
      high: next === undefined ? top : next - (row.step ?? 1),
      modes: [{ from: low, mode }, ...more.map(([from, m]) => ({ from: noteNumber(from), mode: m }))],
    };
  });
  const within = <T extends { low: number; high: number }>(rows: T[]): T[] =>
    rows
      .map((each) => ({ ...each, low: Math.max(each.low, lows[0] ?? 0), high: Math.min(each.high, top) }))
      .filter((each) => each.low <= each.high);
  return {
    id: row.id,
    name: row.name,
    kind: row.kind,
    series: row.series ?? 'harmonic',
    clef: row.clef ?? 'treble',
    ...(row.handBreak && {
      handBreak: { below: noteNumber(row.handBreak[0]), above: noteNumber(row.handBreak[1]) },
    }),
    ...(row.usualLow !== undefined && { usualLow: noteNumber(row.usualLow) }),
    ...(row.altissimoFrom !== undefined && { altissimoFrom: noteNumber(row.altissimoFrom) }),
    ...(row.testNote !== undefined && { testNote: noteNumber(row.testNote) }),
    ...(row.plainKeys && { plainKeys: [...row.plainKeys] }),
    ...(row.upperClef && { upperClef: { clef: row.upperClef[0], from: noteNumber(row.upperClef[1]) } }),
    transposition: row.transposition ?? 0,
    home: noteNumber(row.home),
    registers,
    tube: tubeOf(row.tube),
    hands: within((row.hands ?? []).map((hand, i) => handOf(hand, i, row.aside ?? []))),
    tendencies: within((row.tendencies ?? []).map(tendencyOf)),
    breathSeconds: row.breathSeconds,
    cautions: [...(row.cautions ?? [])],
    step: row.step ?? 1,
  };
}
