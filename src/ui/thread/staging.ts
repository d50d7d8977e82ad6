import type { Midi, Seconds } from '@/core/base';
import { secondsAt, type Score } from '@/core/music';
import type { Page } from '@/core/hearing/following';
import { seamsOf, soundingOf, type Instrument } from '@/core/instruments';
import type { Group } from '@/core/hearing/matching';

/** The written note as an opening that the thread is to pass through. */
export interface Eye {
  readonly group: Group;
  readonly name: string;
  readonly x: number;
  readonly width: number;
  readonly y: number;
}

export interface Staging {
  readonly eyes: readonly Eye[];
  /** Register breaks that lie between the notes of the page. */
  readonly seams: readonly { readonly y: number; readonly text: string }[];
  /** Half of an eye's height. */
  readonly half: number;
  readonly xOf: (seconds: Seconds) => number;
  readonly yOf: (midi: Midi) => number;
}

/** Cents either way that an eye and its surroundings show magnified. */
const ZONE_SEMITONES = 0.4;
/** Half of an eye in cents: what passes through it is well in tune. */
export const EYE_CENTS = 12;
const SIDE = 26;
const LEAST_EYE = 26;
const BEFORE: Seconds = 0.5;
const AFTER: Seconds = 0.4;

/**
 * Where the notes of a page stand. Around each asked pitch the height is magnified, so that a few cents can be seen; between
 * them it is squeezed, so that an octave still fits.
 * @param nameAt what a group's note is called where it stands; nothing where it is played by ear.
 */
export function stagingOf(
  page: Page,
  score: Pick<Score, 'tempo' | 'swing'>,
  instrument: Instrument,
  width: number,
  height: number,
  nameOf: (midi: Midi) => string,
  nameAt: (group: Group) => string,
): Staging {
  const pitches = [...new Set(page.groups.map((group) => group.sounding))].sort((a, b) => a - b);
  const margin = Math.min(64, height / 4);
  const room = height - 2 * margin;
  const steps = pitches.slice(1).map((pitch, i) => Math.min(12, pitch - pitches[i]!) + 3);
  const total = steps.reduce((a, b) => a + b, 0);
  let above = 0;
  const middles = pitches.map((_, i) => {
    if (i > 0) above += steps[i - 1]!;
    return total === 0 ? height / 2 : height - margin - (above / total) * room;
  });
  const nearest = middles.slice(1).map((y, i) => middles[i]! - y);
  const zone = Math.min(54, height / 4, ...nearest.map((gap) => 0.46 * gap));
  const knots = pitches.flatMap((pitch, i) => [
    { midi: pitch - ZONE_SEMITONES, y: middles[i]! + zone },
    { midi: pitch + ZONE_SEMITONES, y: middles[i]! - zone },
  ]);
  const yOf = (midi: Midi): number => {
    const first = knots[0]!;
    const last = knots[knots.length - 1]!;
    // Outside of the page's notes an octave takes what room there is to the edge.
    if (midi <= first.midi) return Math.min(height - 4, first.y + (first.midi - midi) * 9);
    if (midi >= last.midi) return Math.max(4, last.y - (midi - last.midi) * 9);
    const next = knots.findIndex((knot) => knot.midi >= midi);
    const [a, b] = [knots[next - 1]!, knots[next]!];
    return a.y + ((b.y - a.y) * (midi - a.midi)) / Math.max(1e-6, b.midi - a.midi);
  };
  const span = page.toSeconds - page.fromSeconds + BEFORE + AFTER;
  const xOf = (seconds: Seconds) =>
    SIDE + ((seconds - page.fromSeconds + BEFORE) / span) * (width - 2 * SIDE);
  const eyes = page.groups.map((group): Eye => {
    const x = xOf(secondsAt(score, group.startBeat));
    const end = xOf(secondsAt(score, group.startBeat + group.beats));
    return {
      group,
      name: nameAt(group),
      x,
      width: Math.max(LEAST_EYE, (end - x) * 0.94),
      y: middles[pitches.indexOf(group.sounding)]!,
    };
  });
  const names = new Map<number, string[]>();
  for (const { below, above: over } of seamsOf(instrument)) {
    const lower = pitches.findLastIndex((pitch) => pitch <= soundingOf(instrument, below));
    const upper = pitches.findIndex((pitch) => pitch >= soundingOf(instrument, over));
    if (lower < 0 || upper < 0) continue;
    const y = (middles[lower]! + middles[upper]!) / 2;
    names.set(y, [...(names.get(y) ?? []), `${nameOf(below)}–${nameOf(over)}`]);
  }
  // Breaks that lie between the same two notes share a line.
  const seams = [...names].map(([y, all]) => ({
    y,
    text: `${all.length > 1 ? 'seams' : 'seam'} ${all.join(', ')}`,
  }));
  return { eyes, seams, half: (zone * EYE_CENTS) / (100 * ZONE_SEMITONES) + 8, xOf, yOf };
}
