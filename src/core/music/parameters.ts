import * as z from 'zod';
import { writtenRange, type Instrument } from '@/core/instruments';
import { checked, clamp, type Midi, type Outcome, success } from '@/core/base';
import { displayName, type Naming } from '@/core/tuning';
import { modelSchema, type Model } from './model';

export interface NoteRange {
  readonly low: Midi;
  readonly high: Midi;
}

/** One thing about an exercise that a player can set, as its control needs to know it. */
export type ParameterSpec =
  | { readonly kind: 'note'; readonly label: string }
  | { readonly kind: 'range'; readonly label: string; readonly least: number }
  | {
      readonly kind: 'tempo';
      readonly label: string;
      readonly low: number;
      readonly high: number;
      readonly free: boolean;
    }
  | {
      readonly kind: 'count';
      readonly label: string;
      readonly low: number;
      readonly high: number;
      readonly unit: string;
    }
  | {
      readonly kind: 'choice';
      readonly label: string;
      readonly options: readonly (readonly [string, string])[];
      readonly offered: (option: never, instrument: Instrument) => boolean;
    }
  | { readonly kind: 'flag'; readonly label: string }
  /** A note in a recording; null until one has been chosen. */
  | { readonly kind: 'model'; readonly label: string };

export type ParameterSpecs = Readonly<Record<string, ParameterSpec>>;

type ValueOf<S extends ParameterSpec> = S extends { kind: 'note' | 'count' }
  ? number
  : S extends { kind: 'range' }
    ? NoteRange
    : S extends { kind: 'tempo'; free: false }
      ? number
      : S extends { kind: 'tempo' }
        ? number | null
        : S extends { kind: 'choice'; options: readonly (readonly [infer Id, string])[] }
          ? Id
          : S extends { kind: 'flag' }
            ? boolean
            : S extends { kind: 'model' }
              ? Model | null
              : never;

/** What the parameters of a family are once they have been set. */
export type ValuesOf<S extends ParameterSpecs> = { readonly [K in keyof S]: ValueOf<S[K]> };

/** A written note within the instrument’s range. */
export const note = (label: string) => ({ kind: 'note', label }) as const;
/** @param least semitones that the range has to span. */
export const range = (label: string, least = 1) => ({ kind: 'range', label, least }) as const;
/** Beats a minute, or free time. */
export const tempo = (low = 30, high = 208) =>
  ({ kind: 'tempo', label: 'Tempo', low, high, free: true }) as const;
/** Beats a minute; free time would leave nothing to measure. */
export const strictTempo = (low = 30, high = 208) =>
  ({ kind: 'tempo', label: 'Tempo', low, high, free: false }) as const;
/** A whole number between two, both included. */
export const count = (label: string, low: number, high: number, unit = '') =>
  ({ kind: 'count', label, low, high, unit }) as const;
/** Yes or no. */
export const flag = (label: string) => ({ kind: 'flag', label }) as const;
/** A recording to play after, or none. */
export const model = (label: string) => ({ kind: 'model', label }) as const;
/** @param offered which of them an instrument has; all, unless something is said. */
export const choice = <const O extends readonly (readonly [string, string])[]>(
  label: string,
  options: O,
  offered: (option: O[number][0], instrument: Instrument) => boolean = () => true,
) => ({ kind: 'choice', label, options, offered }) as const;
/** A loudness, from pp to ff. */
export const dynamic = (label = 'Loudness') =>
  choice(label, [
    ['pp', 'pp'],
    ['p', 'p'],
    ['mp', 'mp'],
    ['mf', 'mf'],
    ['f', 'f'],
    ['ff', 'ff'],
  ]);

/** What of a choice an instrument has. */
export const optionsOf = (
  { options, offered }: Extract<ParameterSpec, { kind: 'choice' }>,
  instrument: Instrument,
) => options.filter(([id]) => offered(id as never, instrument));

function schemaOf(spec: ParameterSpec, instrument: Instrument, naming: Naming): z.ZodType {
  const { low, high } = writtenRange(instrument);
  const span = `${displayName(low, naming)} and ${displayName(high, naming)} on the ${instrument.name}`;
  const inRange = z
    .number({ error: 'must be a note' })
    .min(low, { error: `must lie between ${span}` })
    .max(high, { error: `must lie between ${span}` })
    .multipleOf(instrument.step, { error: 'must be a note of the instrument' });
  switch (spec.kind) {
    case 'note':
      return inRange;
    case 'range':
      return z
        .object({ low: inRange, high: inRange })
        .refine((value) => value.high - value.low >= spec.least, {
          error: `must span ${spec.least} semitones or more: raise its upper or lower its lower end`,
        });
    case 'tempo': {
      const words = {
        error: `must be from ${spec.low} to ${spec.high} beats a minute${spec.free ? ', or free' : ''}`,
      };
      const beats = z.number(words).int(words).min(spec.low, words).max(spec.high, words);
      return spec.free ? beats.nullable() : beats;
    }
    case 'count': {
      const words = { error: `must be a whole number from ${spec.low} to ${spec.high}` };
      return z.number(words).int(words).min(spec.low, words).max(spec.high, words);
    }
    case 'choice': {
      const ids = optionsOf(spec, instrument).map(([id]) => id);
      return z.enum(ids, { error: `must be one of: ${ids.join(', ')}` });
    }
    case 'flag':
      return z.boolean({ error: 'must be yes or no' });
    case 'model':
      return z.unknown().refine((value) => modelSchema.nullable().safeParse(value).success, {
        error: 'must be a note of a recording: choose it again',
      });
  }
}

/**
 * Values that a family thought of, brought into what the instrument has: one of the player's own may be narrower, or lie otherwise,
 * than any that is known. What lies within stays as it is.
 */
export function fitted<S extends ParameterSpecs>(
  specs: S,
  values: ValuesOf<S>,
  instrument: Instrument,
): ValuesOf<S> {
  const { low: lowest, high: highest } = writtenRange(instrument);
  const into = (written: Midi) => clamp(written, lowest, highest);
  const wideEnough = (low: Midi, high: Midi, least: number): NoteRange => {
    const top = Math.min(highest, Math.max(high, low + least));
    return { low: Math.max(lowest, Math.min(low, top - least)), high: top };
  };
  const put = (spec: ParameterSpec | undefined, value: unknown) => {
    if (spec?.kind === 'note') return into(value as Midi);
    if (spec?.kind !== 'range') return value;
    const { low, high } = value as NoteRange;
    return wideEnough(into(low), into(high), spec.least);
  };
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [name, put(specs[name], value)]),
  ) as ValuesOf<S>;
}

/** Checks what was set; a problem begins with the name of the field. Fields that are missing come from `defaults`. */
export type ReadParameters<S extends ParameterSpecs> = (
  instrument: Instrument,
  values: Readonly<Record<string, unknown>>,
  defaults: ValuesOf<S>,
  naming?: Naming,
) => Outcome<ValuesOf<S>>;

/** Makes the check of a set of parameters. A plan asks for the same instrument again and again: its schema is made once. */
export function parametersReader<S extends ParameterSpecs>(specs: S): ReadParameters<S> {
  const made = new WeakMap<Instrument, Map<Naming, z.ZodObject>>();
  const schemaFor = (instrument: Instrument, naming: Naming): z.ZodObject => {
    const byNaming = made.get(instrument) ?? new Map<Naming, z.ZodObject>();
    made.set(instrument, byNaming);
    const known = byNaming.get(naming);
    if (known) return known;
    const schema = z.object(
      Object.fromEntries(
        Object.entries(specs).map(([name, spec]) => [name, schemaOf(spec, instrument, naming)]),
      ),
    );
    byNaming.set(naming, schema);
    return schema;
  };
  return (instrument, values, defaults, naming = 'english') => {
    const read = checked(schemaFor(instrument, naming), { ...defaults, ...values }, 'parameters');
    return read.ok ? success(read.value as ValuesOf<S>) : read;
  };
}
