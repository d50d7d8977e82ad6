import * as z from 'zod';
import { modeOf, writtenRange, soundingOf, type Instrument } from '@/core/instruments';
import type { Decibels, Midi, Random, Seconds } from '@/core/base';

/** How often each thing goes wrong, per note (gaps per slur), 0 … 1. */
export const faultRatesSchema = z.object({
  break: z.number().min(0).max(1),
  blip: z.number().min(0).max(1),
  squeak: z.number().min(0).max(1),
  undertone: z.number().min(0).max(1),
  gap: z.number().min(0).max(1),
  wrongNote: z.number().min(0).max(1),
  lateSpeech: z.number().min(0).max(1),
});
export type FaultRates = z.infer<typeof faultRatesSchema>;

export const noFaults: FaultRates = {
  break: 0,
  blip: 0,
  squeak: 0,
  undertone: 0,
  gap: 0,
  wrongNote: 0,
  lateSpeech: 0,
};

/** What is true of one thing that went wrong. Times from the start of the audio. */
export interface TrueEvent {
  readonly kind: 'break' | 'blip' | 'squeak' | 'undertone' | 'gap' | 'wrong-note' | 'late-speech';
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
  readonly soundingMidi: Midi | null;
  readonly noteIndex: number;
}

/** A stretch of a note, from its start, during which something else sounds. */
export interface Detour {
  readonly kind: 'break' | 'blip' | 'squeak';
  readonly from: Seconds;
  readonly to: Seconds;
  /** From when on it is what is heard: under a slur the note before is still there at first. */
  readonly heardFrom: Seconds;
  /** Frequency against the note's. */
  readonly ratio: number;
}

export interface Undertone {
  readonly from: Seconds;
  readonly to: Seconds;
  readonly ratio: number;
  /** Against partial 1 of the note. */
  readonly levelDb: Decibels;
}

export interface NotePlan {
  readonly detours: readonly Detour[];
  readonly undertone: Undertone | null;
  readonly wrongBy: number;
  /** Time of breath noise before the tone. */
  readonly speech: Seconds;
  /** At the slur into this note: depth and length of the hole. */
  readonly gap: { readonly depthDb: Decibels; readonly length: Seconds } | null;
}

const BODY: Seconds = 0.2;
/** Two slurred notes cross within this time. */
export const SLUR: Seconds = 0.016;

/** Another mode of the note's fingering, up or down, that the instrument can sound. */
function otherMode(
  instrument: Instrument,
  written: Midi,
  frequency: number,
  previous: number | null,
  random: Random,
): number {
  const mode = modeOf(instrument, written);
  const step = instrument.series === 'odd' ? 2 : 1;
  const { low, high } = writtenRange(instrument);
  const inRange = (ratio: number) => {
    const note = written + 12 * Math.log2(ratio);
    return note >= low - 1 && note <= high + 6;
  };
  // A wrong mode on the pitch that the last note had would be a late slur.
  const isNew = (ratio: number) =>
    previous === null || Math.abs(Math.log2((frequency * ratio) / previous)) > 0.15;
  const choices = [mode - step, mode + step]
    .filter((m) => m >= 1)
    .map((m) => m / mode)
    .filter((ratio) => inRange(ratio) && isNew(ratio));
  return choices[Math.floor(random.next() * choices.length)] ?? (mode + 2 * step) / mode;
}

/**
 * Decides what goes wrong in one note. At most one detour a note, and no hole over a blip, so that the truth stays plain.
 * @param slurredFrom frequency of the note that it is slurred to from; null when it is tongued.
 */
export function planNote(
  instrument: Instrument,
  written: Midi,
  frequency: number,
  duration: Seconds,
  slurredFrom: number | null,
  rates: FaultRates,
  random: Random,
): NotePlan {
  const detours: Detour[] = [];
  const draw = (rate: number) => random.next() < rate;
  const room = duration - BODY;
  if (draw(rates.blip) && duration > 0.25) {
    const ratio = otherMode(instrument, written, frequency, slurredFrom, random);
    const shortest = Math.max(0.015, 3 / (frequency * ratio));
    const heardFrom = slurredFrom === null ? 0 : SLUR / 2;
    const to = heardFrom + Math.min(0.1, shortest * random.between(1.15, 3));
    detours.push({ kind: 'blip', from: 0, to, heardFrom, ratio });
  } else if (draw(rates.break) && room > 0.3) {
    const ratio = otherMode(instrument, written, frequency, slurredFrom, random);
    const shortest = Math.max(0.025, 3 / (frequency * ratio));
    const length = Math.min(0.2, shortest * random.between(1.15, 4));
    const from = random.between(BODY, Math.max(BODY, duration - BODY - length));
    detours.push({ kind: 'break', from, to: from + length, heardFrom: from, ratio });
  } else if (draw(rates.squeak) && room > 0.3) {
    const top = 440 * 2 ** ((soundingOf(instrument, writtenRange(instrument).high) - 69) / 12);
    const from = random.between(BODY, duration - BODY - 0.06);
    const ratio = (top * random.between(1.15, 1.42)) / frequency;
    detours.push({ kind: 'squeak', from, to: from + random.between(0.025, 0.06), heardFrom: from, ratio });
  }
  const mode = modeOf(instrument, written);
  const undertone =
    mode > 1 && detours.length === 0 && room > 0.4 && draw(rates.undertone)
      ? undertoneOf(mode, instrument.series, duration, random)
      : null;
  return {
    detours,
    undertone,
    wrongBy: draw(rates.wrongNote) ? (random.next() < 0.5 ? -1 : 1) : 0,
    speech: draw(rates.lateSpeech) && slurredFrom === null ? random.between(0.08, 0.2) : 0,
    gap:
      slurredFrom !== null && draw(rates.gap) && detours[0]?.kind !== 'blip'
        ? { depthDb: random.between(11, 25), length: random.between(0.03, 0.08) }
        : null,
  };
}

function undertoneOf(
  mode: number,
  series: Instrument['series'],
  duration: Seconds,
  random: Random,
): Undertone {
  const below = Array.from({ length: mode - 1 }, (_, i) => i + 1).filter(
    (k) => series === 'harmonic' || k % 2 === 1,
  );
  const k = below[Math.floor(random.next() * below.length)] ?? 1;
  const length = random.between(0.1, Math.min(0.5, duration - 2 * BODY));
  const from = random.between(BODY, duration - BODY - length);
  return { from, to: from + length, ratio: k / mode, levelDb: -random.between(4, 17) };
}
