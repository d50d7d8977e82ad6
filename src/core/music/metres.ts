import { SAME_BEAT } from '@/core/base';
import { scoreBeats, type Metre, type Score } from './score';

type Timed = Pick<Score, 'beatsPerBar' | 'metres'>;

/** A bar: where it begins and how long it is, in crotchets, and the metre that it is read in. */
export interface BarSpan {
  readonly startBeat: number;
  readonly beats: number;
  readonly metre: Metre;
  /** Another metre than the bar before: its time signature is written. */
  readonly isNew: boolean;
  /** Its number as musicians count: a pickup is bar 0, and the two parts of a bar that a repeat cuts are one. */
  readonly number: number;
  /** Crotchets of its bar that are over when it begins: of a pickup those that are missing, of a second part the first. */
  readonly into: number;
}

/** Length of a full bar in crotchets. */
export const lengthOf = ({ beats, unit }: Pick<Metre, 'beats' | 'unit'>): number => (4 * beats) / unit;

const metresOf = ({ beatsPerBar, metres }: Timed): readonly Metre[] =>
  metres.length > 0 ? metres : [{ startBeat: 0, beats: beatsPerBar, unit: 4, length: null }];

/** The bars of a score up to a beat, and one at least; the last metre goes on for ever. */
export function barSpans(score: Timed, toBeat: number): BarSpan[] {
  const metres = metresOf(score);
  const spans: BarSpan[] = [];
  let next = 0;
  for (let at = 0; spans.length === 0 || at < toBeat - SAME_BEAT;) {
    const before = metres[next - 1];
    if (next < metres.length && metres[next]!.startBeat <= at + SAME_BEAT) next++;
    const metre = metres[next - 1] ?? metres[0]!;
    // An irregular length is that of one bar.
    const beats = metre.length !== null && metre !== before ? metre.length : lengthOf(metre);
    const written = spans[spans.length - 1]?.metre;
    const isNew = written?.beats !== metre.beats || written.unit !== metre.unit;
    const last = spans[spans.length - 1];
    const into = beatsOver(last, beats, lengthOf(metre));
    const number = last ? last.number + (into > 0 ? 0 : 1) : into > 0 && toBeat > beats + SAME_BEAT ? 0 : 1;
    spans.push({ startBeat: at, beats, metre, isNew, number, into });
    at += beats;
  }
  return spans;
}

/** What of a full bar is over before a span of so many beats: the first of a piece ends its bar, a cut one may complete the one before. */
function beatsOver(last: BarSpan | undefined, beats: number, full: number): number {
  if (beats > full - SAME_BEAT) return 0;
  if (!last) return full - beats;
  return last.into === 0 && Math.abs(last.beats + beats - full) < SAME_BEAT ? last.beats : 0;
}

/** The metres from a beat on, counted from there; a bar that it falls into is cut short. */
export function metresFrom(score: Timed, beat: number): Metre[] {
  if (score.metres.length === 0) return [];
  const spans = barSpans(score, beat + SAME_BEAT * 2);
  const { startBeat, beats, metre } = spans[spans.length - 1]!;
  const rest = startBeat + beats - beat;
  const first: Metre = { ...metre, startBeat: 0, length: rest === lengthOf(metre) ? null : rest };
  const later = score.metres
    .filter((each) => each.startBeat >= startBeat + beats - SAME_BEAT)
    .map((each) => ({ ...each, startBeat: each.startBeat - beat }));
  // What was cut short is followed by full bars of the same metre.
  const full: Metre[] =
    first.length === null || later[0]?.startBeat === rest
      ? []
      : [{ ...metre, startBeat: rest, length: null }];
  return [first, ...full, ...later];
}

/** Where the last bar that holds music ends, in crotchets. */
export function endOfBars(score: Timed & Pick<Score, 'notes' | 'pictures'>): number {
  const spans = barSpans(score, scoreBeats(score));
  const last = spans[spans.length - 1]!;
  return last.startBeat + last.beats;
}

/** Length of what is beaten, in crotchets: three quavers where they go by threes, else the unit, no shorter than a quaver. */
export function pulseOf({ beats, unit }: Pick<Metre, 'beats' | 'unit'>): number {
  if (unit >= 8 && beats > 3 && beats % 3 === 0) return 12 / unit;
  return Math.max(4 / unit, 0.5);
}

/** A beat of the metronome: where it falls, how long it lasts, in crotchets, and its number in the bar, from 1. */
export interface Pulse {
  readonly beat: number;
  readonly beats: number;
  readonly number: number;
}

function pulsesIn({ startBeat, beats, metre, into }: BarSpan): Pulse[] {
  const length = pulseOf(metre);
  const missing = Math.round(into / length);
  return Array.from({ length: Math.max(1, Math.ceil(beats / length - SAME_BEAT)) }, (_, i) => ({
    beat: startBeat + i * length,
    beats: Math.min(length, beats - i * length),
    number: i + 1 + missing,
  }));
}

/** A bar of count-in is full; it ends where the first bar line of the music would be, had the first bar all of its beats. */
function barBefore(score: Timed, beat: number): BarSpan {
  const first = barSpans(score, 0)[0]!;
  const beats = lengthOf(first.metre);
  const startBeat = Math.floor((beat + first.into + SAME_BEAT) / beats) * beats - first.into;
  return { ...first, startBeat, beats, into: 0 };
}

function barAt(score: Timed, beat: number): BarSpan {
  if (beat < -SAME_BEAT) return barBefore(score, beat);
  const [first] = barSpans(score, 0);
  if (score.metres.length === 0)
    return { ...first!, startBeat: Math.floor((beat + SAME_BEAT) / first!.beats) * first!.beats };
  const spans = barSpans(score, beat + 2 * SAME_BEAT);
  return spans[spans.length - 1]!;
}

/** The beat of the metronome that a place in the music, or before it, belongs to. */
export function pulseAt(score: Timed, beat: number): Pulse {
  const pulses = pulsesIn(barAt(score, beat));
  return pulses.findLast((pulse) => pulse.beat <= beat + SAME_BEAT) ?? pulses[0]!;
}

/** The beats of the metronome from a beat of the music on, without end; those before the music are counted in. */
export function* pulsesFrom(score: Timed, from: number): Generator<Pulse, never> {
  let at = from;
  for (;;) {
    const pulse = pulseAt(score, at);
    // A count-in ends where the music begins, wherever that is in its bar.
    const end = at < -SAME_BEAT ? Math.min(0, pulse.beat + pulse.beats) : pulse.beat + pulse.beats;
    if (pulse.beat >= from - SAME_BEAT) yield pulse;
    at = Math.abs(end) < SAME_BEAT ? 0 : end;
  }
}

/** The bar line at a beat, or the last one before it. */
export const startOfBar = (score: Timed, beat: number): number => barAt(score, beat).startBeat;

/**
 * Crotchets to be counted in: one bar as musicians count, and before a pickup what is missing of its bar too, when that alone
 * would be less than two beats.
 */
export function countInOf(score: Timed): number {
  const [first] = barSpans(score, 0);
  const full = lengthOf(first!.metre);
  const missing = first!.into;
  const beats = missing >= 2 * pulseOf(first!.metre) ? missing : missing + full;
  return beats < 2 ? 2 * beats : Math.min(16, beats);
}

const SIGNS: Readonly<Record<number, string>> = { 0.5: '♪', 1: '♩', 1.5: '♩.' };

/** The tempo as what is beaten in the first bar: `♩ 72`, `♩. 60` in six-eight; `free` without one. */
export function tempoText(score: Timed & Pick<Score, 'tempo'>): string {
  if (score.tempo === null) return 'free';
  const pulse = pulseOf(barSpans(score, 0)[0]!.metre);
  return SIGNS[pulse] ? `${SIGNS[pulse]} ${Math.round(score.tempo / pulse)}` : `♩ ${score.tempo}`;
}
