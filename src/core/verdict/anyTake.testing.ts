import * as fc from 'fast-check';
import { findInstrument } from '@/core/instruments';
import { families, type EventKind, type Score } from '@/core/music';
import { groupsOf, type Group } from '@/core/hearing/matching';
import type { Note, UnknownReason } from '@/core/hearing/notes';
import type { Take } from '@/core/take';
import { asWritten } from './asWritten.testing';
import { beginning } from './truth.testing';

/** Figures of a note that may each be anything, or not be known. */
const FIGURES = {
  centreCents: [-80, 80],
  driftCentsPerSecond: [-30, 30],
  wobbleCents: [0, 40],
  levelDb: [-70, -1],
  levelDriftDbPerSecond: [-20, 20],
  levelWobbleDb: [0, 8],
  centsPer10Db: [-60, 60],
  brightness: [1, 12],
  richness: [0, 25],
  airinessDb: [-60, 5],
  puritySeconds: [0, 20],
} as const;
const SHORT = { notes: 12, seconds: 20 } as const;
const REASONS: readonly UnknownReason[] = ['room', 'too-short', 'too-noisy', 'gain-control', 'masked'];
const EVENTS: readonly EventKind[] = ['break', 'blip', 'squeak', 'undertone', 'gap', 'late-speech'];

// No minus nothing: what is stored of it is nothing.
const figureIn = (min: number, max: number) => fc.double({ min, max, noNaN: true }).map((value) => value + 0);

/** What became of one note: nothing (null: not heard at all), or figures of any size, some of them not known. */
const anyNote: fc.Arbitrary<Partial<Note> | null> = fc.oneof(
  { weight: 1, arbitrary: fc.constant(null) },
  { weight: 3, arbitrary: fc.constant({}) },
  {
    weight: 4,
    arbitrary: fc
      .record({
        figures: fc.record(
          Object.fromEntries(
            Object.entries(FIGURES).map(([name, [min, max]]) => [
              name,
              fc.option(figureIn(min, max), { freq: 4 }),
            ]),
          ),
        ),
        reason: fc.constantFrom(...REASONS),
        vibrato: fc.option(fc.record({ rateHz: fc.constant(5.5), extentCents: fc.constant(25) })),
      })
      .map(({ figures, reason, vibrato }) => ({
        ...figures,
        vibrato,
        unknown: Object.fromEntries(
          Object.entries(figures).flatMap(([name, value]) => (value === null ? [[name, reason]] : [])),
        ),
      })),
  },
);

const anySlur = fc.record({
  seconds: fc.option(fc.double({ min: 0, max: 0.5, noNaN: true })),
  overshootCents: fc.option(fc.double({ min: 0, max: 200, noNaN: true })),
  dipDb: fc.option(fc.double({ min: 0, max: 40, noNaN: true })),
  bumpDb: fc.option(fc.double({ min: 0, max: 15, noNaN: true })),
  levelStepDb: fc.option(fc.double({ min: -20, max: 20, noNaN: true })),
});

const anyEvent = fc.record({
  at: fc.nat(),
  kind: fc.constantFrom(...EVENTS),
  after: fc.double({ min: -0.2, max: 0.8, noNaN: true }),
  by: fc.constantFrom(-19, -12, -7, 12, 19, 24),
});

const scoresOf = (ids: readonly string[]): Score[] =>
  families.flatMap((family) => ids.flatMap((id) => beginning(family, findInstrument(id)!, SHORT) ?? []));

/** For tests: a take of any exercise in which anything was heard, known or not. @param ids of instruments that may have played it. */
export const anyTake = (...ids: readonly string[]): fc.Arbitrary<Take> =>
  fc
    .record({
      score: fc.constantFrom(...scoresOf(ids)),
      notes: fc.array(anyNote, { minLength: 12, maxLength: 12 }),
      slurs: fc.array(anySlur, { minLength: 12, maxLength: 12 }),
      events: fc.array(anyEvent, { maxLength: 5 }),
      late: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
    })
    .map(({ score, notes, slurs, events, late }) => {
      const of = <T>(list: readonly T[], { index }: Group): T => list[index % list.length]!;
      const heard = groupsOf(score, findInstrument(score.instrumentId)!).filter(
        (group) => of(notes, group) !== null,
      );
      return asWritten(score, {
        note: (group) => of(notes, group),
        slur: (group) => of(slurs, group),
        timing: score.tempo === null ? {} : { firstBeatSeconds: 1 + late },
        events: events.flatMap(({ at, kind, after, by }) => {
          const group = heard.length > 0 ? heard[at % heard.length] : undefined;
          return group ? [{ group: group.index, kind, after, midi: group.sounding + by }] : [];
        }),
      });
    });
