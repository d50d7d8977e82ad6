import { median } from '@/core/base';
import type { Decibels } from '@/core/tuning';
import type { SweepLeg } from './drawing';
import { NOTHING, type Part } from './part';
import { nameOf, stretch, type Reading } from './reading';
import { fixed } from './words';
import { highOrLow } from '@/core/tuning';

const BIN_DB = 2;
/** Decibels of air that count as much as one more partial. */
const AIR_PER_PARTIAL = 3;
const FEWEST_BINS = 4;
const BELOW = 'dB below the loudest';

interface Sound {
  /** Against the loudest of the sweep. */
  readonly levelDb: Decibels;
  readonly cents: number;
  readonly ring: number;
}

/** Bins of level, softest first, each with its medians. */
export function binned(sounds: readonly Sound[]): Sound[] {
  const bins = new Map<number, Sound[]>();
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
export function ringOf(points: readonly Sound[]): Decibels | null {
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
export function tuneOf(points: readonly Sound[]): Decibels | null {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (a.cents === 0) return a.levelDb;
    if (a.cents < 0 === b.cents < 0) continue;
    return a.levelDb + ((b.levelDb - a.levelDb) * -a.cents) / (b.cents - a.cents);
  }
  return null;
}

function belowText(againstLoudest: Decibels): string {
  const whole = Math.round(-againstLoudest);
  return whole <= 0 ? 'at the loudest' : `${whole} dB below the loudest`;
}

/** Level against pitch and ring, on the way up and on the way down. */
export function sweepPart(reading: Reading): Part {
  const { alignment, notes, score, trace } = reading;
  const swept = alignment.matches.find(
    (match) => match.parts.length > 0 && score.notes[match.group.from]!.hairpin === 'swell',
  );
  if (!swept) return NOTHING;
  const start = notes[swept.parts[0]!]!.startSeconds + 0.1;
  const end = notes[swept.parts[swept.parts.length - 1]!]!.endSeconds - 0.05;
  const level = stretch(trace, 'levelDb', start, end);
  const pitch = stretch(trace, 'pitchMidi', start, end);
  const air = stretch(trace, 'airinessDb', start, end);
  const rich = stretch(trace, 'richness', start, end);
  const loudest = Math.max(...level);
  const top = level.indexOf(loudest);
  const sound = (i: number): Sound => ({
    levelDb: level[i]! - loudest,
    cents: 100 * (pitch[i]! - swept.group.sounding),
    ring: rich[i]! - air[i]! / AIR_PER_PARTIAL,
  });
  const usable = (each: Sound) =>
    Number.isFinite(each.cents) && Number.isFinite(each.ring) && Math.abs(each.cents) < 150;
  const leg = (from: number, to: number) =>
    binned(Array.from({ length: Math.max(0, to - from) }, (_, i) => sound(from + i)).filter(usable));
  const legs: SweepLeg[] = [
    { way: 'up', points: leg(0, top + 1) },
    { way: 'down', points: leg(top, level.length) },
  ];
  const all = binned(level.map((_, i) => sound(i)).filter(usable));
  const ringDb = ringOf(all);
  const tuneDb = tuneOf(all);
  const atRing =
    ringDb === null
      ? null
      : all.reduce((a, b) => (Math.abs(b.levelDb - ringDb) < Math.abs(a.levelDb - ringDb) ? b : a)).cents;
  const [ups, downs] = legs.map((each) => tuneOf(each.points));
  const name = nameOf(swept.group);
  const gap = ringDb !== null && tuneDb !== null ? tuneDb - ringDb : null;
  const range = all.length > 0 ? all[all.length - 1]!.levelDb - all[0]!.levelDb : 0;
  return {
    findings: [
      {
        id: 'ring',
        label: 'Where it rings',
        value: ringDb === null ? null : fixed(-ringDb, 0),
        unit: BELOW,
        sentence:
          ringDb === null
            ? 'Where it rings is not known: the tone was much the same at every breath.'
            : `${name} rang most ${belowText(ringDb)}: most partials and least air.`,
        meaning:
          'The level at which richness less air is greatest: so much softer than the loudest of this sweep.',
      },
      {
        id: 'in-tune',
        label: 'Where it is in tune',
        value: tuneDb === null ? null : fixed(-tuneDb, 0),
        unit: BELOW,
        sentence:
          tuneDb !== null
            ? `The pitch crossed its target ${belowText(tuneDb)}.`
            : all.length === 0
              ? 'Not known: too little was heard.'
              : `Nowhere on the way: it stayed ${highOrLow(median(all.map((each) => each.cents)))}.`,
        meaning: 'The level at which the pitch crosses its target.',
      },
      {
        id: 'ring-gap',
        label: 'Between the two',
        value: gap === null ? null : fixed(gap, 0),
        unit: 'dB',
        sentence:
          atRing === null
            ? 'Not known.'
            : `At the ringing breath it was ${highOrLow(atRing)}.${gap !== null && Math.abs(gap) > 6 ? ' So far apart, another fingering or shading is the answer.' : ''}`,
        meaning:
          'How much more (or less) breath the right pitch asks for than the best tone, and where the pitch is at the best tone.',
      },
      ...(ups != null && downs != null
        ? [
            {
              id: 'hysteresis',
              label: 'Up against down',
              value: fixed(ups - downs, 0),
              unit: 'dB',
              sentence:
                Math.abs(ups - downs) < 3
                  ? 'The same breath both ways.'
                  : 'The way up and the way down differ.',
              meaning: 'Level of the in-tune breath on the way up less that on the way down.',
            },
          ]
        : []),
      {
        id: 'swept',
        label: 'Swept',
        value: fixed(range, 0),
        unit: 'dB',
        sentence: range < 10 ? 'A short way; go from nearly nothing to too much.' : 'A good way.',
        meaning: 'From the softest to the loudest that held the note.',
      },
    ],
    faults: [],
    headline: {
      text:
        ringDb !== null && atRing !== null
          ? `At its best ring ${highOrLow(atRing)}`
          : tuneDb === null && all.length > 0
            ? 'Never quite in tune'
            : 'The breath is mapped',
      weight: 2,
    },
    drawing: { kind: 'sweep', name, legs, ringDb, tuneDb },
  };
}
