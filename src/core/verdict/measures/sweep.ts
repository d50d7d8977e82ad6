import { median } from '@/core/base';
import { leaning, type Decibels } from '@/core/tuning';
import type { Chart } from '../charts';
import { figure, isKnown, valueOf, wholeOf } from '../figure';
import { NOTHING, SILENT, type Curve, type Measure } from '../measure';
import { roleOf, traced } from '../reading';
import { because, sized } from '../words';

const BIN_DB = 2;
/** Decibels of air that count as much as one more partial. */
const AIR_PER_PARTIAL = 3;
const FEWEST_BINS = 4;
const SHORT_WAY_DB = 10;
const FAR_APART_DB = 6;
const SAME_BREATH_DB = 3;

export interface SweptSound {
  /** Against the loudest of the sweep. */
  readonly levelDb: Decibels;
  readonly cents: number;
  readonly ring: number;
}

/** Bins of level, softest first, each with its medians. */
export function binned(sounds: readonly SweptSound[]): SweptSound[] {
  const bins = new Map<number, SweptSound[]>();
  for (const sound of sounds) {
    const key = Math.round(sound.levelDb / BIN_DB);
    bins.set(key, [...(bins.get(key) ?? []), sound]);
  }
  return [...bins]
    .sort(([a], [b]) => a - b)
    .filter(([, all]) => all.length >= 2)
    .map(([key, all]) => ({
      levelDb: key * BIN_DB,
      cents: median(all.map((sound) => sound.cents)),
      ring: median(all.map((sound) => sound.ring)),
    }));
}

/** Level at which the tone rings most; null when it rings the same everywhere. */
export function ringOf(points: readonly SweptSound[]): Decibels | null {
  if (points.length < FEWEST_BINS) return null;
  const smoothed = points.map((_, i) =>
    median(points.slice(Math.max(0, i - 1), i + 2).map((point) => point.ring)),
  );
  const most = Math.max(...smoothed);
  if (most - Math.min(...smoothed) < 1) return null;
  const near = points.filter((_, i) => smoothed[i]! >= most - 0.5);
  return median(near.map((point) => point.levelDb));
}

/** Level at which the pitch crosses its target, between two bins; null when it never does. */
export function tuneOf(points: readonly SweptSound[]): Decibels | null {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (a.cents === 0) return a.levelDb;
    if (a.cents < 0 === b.cents < 0) continue;
    return a.levelDb + ((b.levelDb - a.levelDb) * -a.cents) / (b.cents - a.cents);
  }
  return null;
}

/** Level against pitch and ring, on the way up and on the way down, of the first note that was swept. */
export const sweep: Measure = {
  measure(reading) {
    const { alignment, notes, trace } = reading;
    const swept = alignment.matches.find(
      ({ parts, group }) => parts.length > 0 && roleOf(reading, group) === 'sweep',
    );
    if (!swept) return NOTHING;
    const at = swept.group.index;
    const start = notes[swept.parts[0]!]!.startSeconds + 0.1;
    const end = notes[swept.parts[swept.parts.length - 1]!]!.endSeconds - 0.05;
    const column = (name: 'levelDb' | 'pitchMidi' | 'airinessDb' | 'richness') =>
      traced(trace, name, start, end);
    const [level, pitch, air, rich] = [
      column('levelDb'),
      column('pitchMidi'),
      column('airinessDb'),
      column('richness'),
    ];
    const loudest = Math.max(...level);
    const top = level.indexOf(loudest);
    const sound = (i: number): SweptSound => ({
      levelDb: level[i]! - loudest,
      cents: 100 * (pitch[i]! - swept.group.sounding),
      ring: rich[i]! - air[i]! / AIR_PER_PARTIAL,
    });
    const usable = (each: SweptSound) =>
      Number.isFinite(each.cents) && Number.isFinite(each.ring) && Math.abs(each.cents) < 150;
    const leg = (from: number, to: number) =>
      binned(Array.from({ length: Math.max(0, to - from) }, (_, i) => sound(from + i)).filter(usable));
    const [up, down, all] = [leg(0, top + 1), leg(top, level.length), leg(0, level.length)];
    const [ringDb, tuneDb] = [ringOf(all), tuneOf(all)];
    const atRing =
      ringDb === null
        ? null
        : all.reduce((a, b) => (Math.abs(b.levelDb - ringDb) < Math.abs(a.levelDb - ringDb) ? b : a)).cents;
    const [ups, downs] = [tuneOf(up), tuneOf(down)];
    const about = { groups: [at], n: all.length };
    const line = (of: 'sweep-up' | 'sweep-down', points: readonly SweptSound[]): Curve => ({
      of,
      at,
      points: points.map(({ levelDb, cents }) => ({ x: levelDb, y: cents })),
    });
    return {
      figures: [
        figure('ring', ringDb === null ? null : -ringDb, about, 'same-everywhere'),
        figure(
          'in-tune',
          tuneDb === null ? null : -tuneDb,
          about,
          all.length === 0 ? 'too-few' : 'never-in-tune',
        ),
        figure('ring-cents', atRing, about, 'same-everywhere'),
        figure(
          'ring-gap',
          ringDb === null || tuneDb === null ? null : tuneDb - ringDb,
          about,
          ringDb === null ? 'same-everywhere' : 'never-in-tune',
        ),
        ...(ups === null || downs === null ? [] : [figure('hysteresis', ups - downs, about)]),
        figure('swept', all.length > 0 ? all[all.length - 1]!.levelDb - all[0]!.levelDb : 0, about),
        ...(all.length > 0 ? [figure('sweep-cents', median(all.map(({ cents }) => cents)), about)] : []),
      ],
      curves: [line('sweep-up', up), line('sweep-down', down)],
    };
  },
  say(figures, { nameAt, limits }) {
    const ring = wholeOf(figures, 'ring');
    if (!ring) return SILENT;
    const name = nameAt(ring.groups[0] ?? 0);
    const tune = wholeOf(figures, 'in-tune');
    const atRing = valueOf(figures, 'ring-cents');
    const gap = wholeOf(figures, 'ring-gap');
    const both = valueOf(figures, 'hysteresis');
    const swept = valueOf(figures, 'swept') ?? 0;
    const middle = valueOf(figures, 'sweep-cents');
    return {
      headline:
        atRing !== null
          ? `${name} rings most where it is ${leaning(atRing)}`
          : isKnown(tune)
            ? 'The breath is mapped'
            : `${name} was never quite in tune`,
      lines: {
        ring: isKnown(ring)
          ? `${name} rang most ${below(ring.value)}: most partials and least air.`
          : because(ring.unknown),
        'in-tune': isKnown(tune)
          ? `The pitch crossed its target ${below(tune.value)}.`
          : `${because(tune?.unknown ?? 'too-few')}${middle === null ? '' : ` It stayed ${leaning(middle)}.`}`,
        'ring-gap':
          atRing === null
            ? because('same-everywhere')
            : `At the ringing breath ${name} was ${leaning(atRing)}.${isKnown(gap) && Math.abs(gap.value) > FAR_APART_DB && Math.abs(atRing) > limits.centreCents ? ' So far apart, another fingering or shading is the answer.' : ''}`,
        ...(both !== null && {
          hysteresis:
            Math.abs(both) < SAME_BREATH_DB
              ? 'The same breath both ways.'
              : 'The way up and the way down differ.',
        }),
        swept:
          swept < SHORT_WAY_DB ? 'A short way; go from nearly nothing to too much.' : 'Far enough to tell.',
      },
    };
  },
  draw({ figures, curves }, { nameAt }): Chart[] {
    const points = (of: Curve['of']) => curves.find((curve) => curve.of === of)?.points ?? [];
    if (points('sweep-up').length + points('sweep-down').length === 0) return [];
    const mark = (id: 'ring' | 'in-tune', text: string) => {
      const value = valueOf(figures, id);
      return value === null ? [] : [{ x: -value, text }];
    };
    return [
      {
        kind: 'curves',
        title: `${nameAt(curves[0]!.at)}: pitch against breath`,
        x: { label: 'level against the loudest', unit: 'dB' },
        y: { label: 'pitch', unit: 'cents' },
        zero: 0,
        lines: [
          { name: 'louder', style: 'played', points: points('sweep-up') },
          { name: 'softer', style: 'second', points: points('sweep-down') },
        ],
        marks: [...mark('ring', 'rings'), ...mark('in-tune', 'in tune')],
      },
    ];
  },
};

/** `9 dB below the loudest`, or at it. */
const below = (dB: number): string =>
  Math.round(dB) <= 0 ? 'at the loudest' : `${sized(dB, 'dB')} below the loudest`;
