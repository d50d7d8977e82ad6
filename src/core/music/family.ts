import { writtenRange, type Instrument } from '@/core/instruments';
import { clamp, failure, type Midi, type Outcome, success } from '@/core/base';
import type { Naming } from '@/core/tuning';
import { planBreaths } from './breaths';
import { CUES } from './cues';
import type { Level } from './level';
import { choice, fitted, parametersReader, type ParameterSpecs, type ValuesOf } from './parameters';
import { EVERYTHING_COUNTS, SCORE_VERSION, type Counts, type Dynamic, type Score } from './score';
import { Writer } from './writer';

export type Section = 'prepare' | 'sound' | 'seams' | 'dynamics' | 'intonation' | 'rhythm' | 'air';

/** What a player may be looking for. */
export type Purpose =
  | 'the break'
  | 'the low notes'
  | 'the high notes'
  | 'soft playing'
  | 'tuning'
  | 'sameness of tone'
  | 'attacks'
  | 'breath and air'
  | 'time'
  | 'flexibility'
  | 'warming up'
  | 'music';

/** Set for every family. */
const COMMON = {
  vibrato: choice('Vibrato', [
    ['none', 'none'],
    ['free', 'as you like'],
    ['wanted', 'wanted'],
  ]),
  cue: choice('Attend to', [['', 'nothing in particular'], ...CUES.map((cue) => [cue, cue] as const)]),
} as const;

type Fixed = Partial<
  Pick<
    Score,
    | 'beatsPerBar'
    | 'fifths'
    | 'swing'
    | 'drone'
    | 'droneLeavesOut'
    | 'sides'
    | 'blind'
    | 'byEar'
    | 'company'
    | 'repeats'
    | 'longestSeconds'
    | 'free'
  >
>;

/** What a player reads about a family. */
interface About<Id extends string = string> {
  readonly id: Id;
  readonly title: string;
  readonly section: Section;
  readonly purposes: readonly Purpose[];
  /** What it is good for. */
  readonly what: string;
  /** What to do. */
  readonly how: string;
  /** What to listen for meanwhile. */
  readonly listen: string;
  /** When to stop. */
  readonly enough: string;
  readonly measured: string;
}

export interface Family<
  S extends ParameterSpecs = ParameterSpecs,
  Id extends string = string,
> extends About<Id> {
  readonly caution: string | null;
  /** What teachers do not agree about here. */
  readonly differ: string | null;
  readonly specs: S & typeof COMMON;
  /** Whether the instrument can do it at all; a sentence says why not. */
  unfit(instrument: Instrument): string | null;
  defaults(instrument: Instrument, level: Level): ValuesOf<S & typeof COMMON>;
  /** The exercise as music; a problem names the field and the remedy. Missing parameters are the defaults. */
  make(
    instrument: Instrument,
    values?: Readonly<Record<string, unknown>>,
    level?: Level,
    naming?: Naming,
  ): Outcome<Score>;
}

interface Definition<S extends ParameterSpecs, Id extends string> extends About<Id> {
  readonly caution?: string;
  readonly differ?: string;
  readonly specs: S;
  readonly vibrato?: Score['vibrato'];
  /** What its takes are looked at for, and what they may change. */
  readonly counts?: Partial<Counts> | ((values: ValuesOf<S>) => Partial<Counts>);
  readonly unfit?: (instrument: Instrument) => string | null;
  readonly defaults: (instrument: Instrument, level: Level, comfortable: Comfort) => ValuesOf<S>;
  readonly fixed?: (values: ValuesOf<S>, instrument: Instrument) => Fixed;
  readonly write: (writer: Writer, values: ValuesOf<S>, instrument: Instrument) => void;
}

export interface Comfort {
  readonly low: Midi;
  readonly high: Midi;
  /** The first register, as far as it is comfortable. */
  readonly bottom: { readonly low: Midi; readonly high: Midi };
}

/** The range that a player of some level is at ease in. */
export function comfortOf(instrument: Instrument, level: Level): Comfort {
  const { low: lowest, high } = writtenRange(instrument);
  const { home, step } = instrument;
  const low = Math.max(lowest, instrument.usualLow ?? lowest);
  const snap = (note: number) => clamp(low + Math.round((note - low) / step) * step, low, high);
  const up = { beginner: 7, steady: 14, advanced: 22, exacting: 48 }[level];
  const down = { beginner: 5, steady: 12, advanced: 24, exacting: 48 }[level];
  const bottomHigh = instrument.registers[0]!.high;
  const ease = {
    low: snap(Math.max(low, home - down)),
    high: snap(Math.min(high - (level === 'exacting' ? 0 : 1), home + up)),
  };
  const bottomLow = level === 'beginner' ? snap(Math.min(low + 2, bottomHigh - 5)) : low;
  return { ...ease, bottom: { low: bottomLow, high: snap(bottomHigh) } };
}

/** A family from its definition: parameters checked, notes written, breaths planned. */
export function defineFamily<const S extends ParameterSpecs, const Id extends string>(
  definition: Definition<S, Id>,
): Family<S, Id> {
  const { id, title, vibrato = 'none', counts, unfit = () => null } = definition;
  const specs = { ...definition.specs, ...COMMON };
  const readParameters = parametersReader(specs);
  const defaults = (instrument: Instrument, level: Level) =>
    ({
      ...fitted(
        definition.specs,
        definition.defaults(instrument, level, comfortOf(instrument, level)),
        instrument,
      ),
      vibrato,
      cue: '',
    }) as unknown as ValuesOf<S & typeof COMMON>;
  return {
    id,
    title,
    section: definition.section,
    purposes: definition.purposes,
    what: definition.what,
    how: definition.how,
    listen: definition.listen,
    enough: definition.enough,
    measured: definition.measured,
    caution: definition.caution ?? null,
    differ: definition.differ ?? null,
    specs,
    unfit,
    defaults,
    make(instrument, values = {}, level = 'steady', naming = 'english') {
      const reason = unfit(instrument);
      if (reason) return failure(`instrument: ${reason}`);
      const read = readParameters(instrument, values, defaults(instrument, level), naming);
      if (!read.ok) return read;
      const set = read.value as ValuesOf<S> & {
        tempo?: number | null;
        dynamic?: Dynamic;
        vibrato: Score['vibrato'];
        cue: string;
      };
      const fixed = definition.fixed?.(set, instrument) ?? {};
      const beatsPerBar = fixed.beatsPerBar ?? 4;
      const writer = new Writer(instrument, set.dynamic ?? 'mf', beatsPerBar);
      definition.write(writer, set, instrument);
      const tempo = set.tempo === undefined ? 60 : set.tempo;
      return success({
        version: SCORE_VERSION,
        family: id,
        title,
        instrumentId: instrument.id,
        tempo,
        countInBeats: tempo === null ? 0 : Math.min(8, beatsPerBar),
        fifths: 0,
        metres: [],
        swing: false,
        drone: [],
        droneLeavesOut: false,
        sides: null,
        blind: false,
        byEar: false,
        company: false,
        repeats: 1,
        longestSeconds: null,
        free: false,
        ...fixed,
        beatsPerBar,
        vibrato: set.vibrato,
        cue: set.cue === '' ? null : set.cue,
        notes: planBreaths(writer.notes, { tempo, beatsPerBar }, instrument),
        pictures: writer.pictures,
        counts: { ...EVERYTHING_COUNTS, ...(typeof counts === 'function' ? counts(set) : counts) },
        parameters: set,
      });
    },
  };
}
