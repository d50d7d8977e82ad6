import { noteNumber } from '@/core/tuning';
import type { Clef, Instrument, Kind, Register } from './instrument';

/** `[id, name, lowest note, mode, more modes as [from note, mode] …]`, each register reaching up to the next. */
export type RegisterRow = readonly [
  id: string,
  name: string,
  low: string,
  mode: number,
  ...more: (readonly [string, number])[],
];

export interface InstrumentRow {
  readonly id: string;
  readonly name: string;
  readonly kind: Kind;
  readonly series?: 'harmonic' | 'odd';
  readonly clef?: Clef;
  readonly transposition?: number;
  readonly home: string;
  readonly top: string;
  readonly registers: readonly RegisterRow[];
}

/** Reads the shorthand that the catalogue is written in. */
export function instrument(row: InstrumentRow): Instrument {
  const lows = row.registers.map((r) => noteNumber(r[2]));
  const registers = row.registers.map(([id, name, , mode, ...more], i): Register => {
    const low = lows[i] ?? 0;
    const next = lows[i + 1];
    return {
      id,
      name,
      low,
      high: next === undefined ? noteNumber(row.top) : next - 1,
      modes: [{ from: low, mode }, ...more.map(([from, m]) => ({ from: noteNumber(from), mode: m }))],
    };
  });
  return {
    id: row.id,
    name: row.name,
    kind: row.kind,
    series: row.series ?? 'harmonic',
    clef: row.clef ?? 'treble',
    transposition: row.transposition ?? 0,
    home: noteNumber(row.home),
    registers,
  };
}
