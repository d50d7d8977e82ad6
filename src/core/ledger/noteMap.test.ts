import { Random } from '@/core/base';
import { findInstrument, loweredBy, soundingLength, warmedBy } from '@/core/instruments';
import { limitsOf } from '@/core/verdict';
import { loudnessEffect, noteMap, problemNotes, warmUpEffect } from '.';
import { cellOf, eightWeeks, rememberedOf, START_DAY } from './memory.testing';

const flute = findInstrument('flute')!;
const limits = limitsOf('steady');
const NOW = START_DAY + 56;

describe('where notes lie', () => {
  it('is the guess while nothing was heard, and comes to what was heard as takes gather', () => {
    const map = (takes: number) =>
      noteMap(
        rememberedOf(Array.from({ length: takes }, (_, i) => ({ day: i, notes: [cellOf(73, -12)] }))),
        flute,
        START_DAY + takes,
      ).notes.find(({ written }) => written === 73)!;
    const guess = map(0).guess;
    expect(map(0)).toMatchObject({ centre: guess, heard: null, certainty: 0, takes: 0 });
    // Three takes of today weigh as much as the guess: a little less by their age.
    expect(map(3).certainty).toBeGreaterThan(0.47);
    expect(map(3).certainty).toBeLessThan(0.5);
    expect(map(3).centre).toBeCloseTo((guess - 12) / 2, 0);
    expect(Math.abs(map(40).centre + 12)).toBeLessThan(2.5);
  });

  it('lets old takes go', () => {
    const played = rememberedOf([
      ...Array.from({ length: 10 }, (_, i) => ({ day: i, notes: [cellOf(67, 20)] })),
      ...Array.from({ length: 10 }, (_, i) => ({ day: 180 + i, notes: [cellOf(67, -4)] })),
    ]);
    const note = noteMap(played, flute, START_DAY + 190).notes.find(({ written }) => written === 67)!;
    expect(note.heard!.value).toBeLessThan(-1);
  });

  it('is told with intervals that hold the truth 92 to 98 times of 100, days that differ and all', () => {
    let [inside, all] = [0, 0];
    for (let seed = 0; seed < 100; seed++) {
      const random = new Random(seed);
      const truth = new Map([67, 69, 71, 72, 74].map((written) => [written, 8 * random.normal()]));
      const played = eightWeeks(random, () => {
        const today = 3 * random.normal();
        return {
          notes: [...truth]
            .filter(() => random.next() < 0.5)
            .map(([written, cents]) => cellOf(written, cents + today + 3 * random.normal())),
        };
      });
      for (const { written, heard } of noteMap(played, flute, NOW).notes) {
        if (!heard) continue;
        all++;
        if (heard.low <= truth.get(written)! && truth.get(written)! <= heard.high) inside++;
      }
    }
    expect(all).toBeGreaterThan(450);
    expect(inside / all).toBeGreaterThanOrEqual(0.92);
    expect(inside / all).toBeLessThanOrEqual(0.98);
  });

  it('does not take many takes of one evening for many witnesses', () => {
    const width = (apart: number) => {
      const random = new Random(3);
      const played = rememberedOf(
        Array.from({ length: 12 }, (_, i) => ({
          day: i * apart,
          notes: [cellOf(67, 4 * random.normal()), cellOf(69, 4 * random.normal())],
        })),
      );
      const { low, high } = noteMap(played, flute, NOW).notes.find(({ written }) => written === 67)!.heard!;
      return high - low;
    };
    expect(width(0.01)).toBeGreaterThan(2 * width(1));
  });

  it('is told with slide, temperature and pitch standard taken off', () => {
    const length = soundingLength(flute, 67, 440, 20);
    const at = (slideMm: number, temperatureC: number, a4: number) =>
      6 -
      (loweredBy(slideMm, length) - loweredBy(2, length)) +
      warmedBy(20, temperatureC) +
      1200 * Math.log2(440 / a4);
    const told = [
      [8, 26, 442],
      [0, 12, 438],
      [2, 20, 440],
    ] as const;
    const played = rememberedOf(
      told.map(([slideMm, temperatureC, a4], day) => ({
        day,
        row: { slideMm, temperatureC, a4 },
        notes: [cellOf(67, at(slideMm, temperatureC, a4))],
      })),
    );
    const { notes, usual } = noteMap(played, flute, START_DAY + 3);
    const note = notes.find(({ written }) => written === 67)!;
    expect(usual).toEqual({ slideMm: 2, temperatureC: 20, a4: 440 });
    expect(note.heard!.value).toBeCloseTo(6, 1);
    expect(note.spread).toBeLessThan(0.1);
  });

  it('names problems with their reason, the sure ones first', () => {
    const days = Array.from({ length: 8 }, (_, day) => day);
    const played = rememberedOf(
      days.map((day) => ({
        day,
        notes: [
          cellOf(67, 1),
          cellOf(69, -22 + (day % 2)),
          cellOf(71, day % 2 === 0 ? 32 : -30),
          ...(day === 7 ? [cellOf(72, 60)] : []),
        ],
      })),
    );
    const problems = problemNotes(noteMap(played, flute, START_DAY + 8), limits.centreCents);
    expect(problems.map(({ note, why, sure }) => [note.written, why, sure])).toEqual([
      [72, 'high', true],
      [69, 'low', true],
      [71, 'wanders', false],
    ]);
  });
});

describe('what pitch goes with', () => {
  it('is found in level and in warming up, and not claimed of too few sittings', () => {
    const random = new Random(4);
    const days = (count: number) =>
      rememberedOf(
        Array.from({ length: count }, (_, day) => day).flatMap((day) =>
          [0, 8, 16, 24].map((minutes) => ({
            day: day + minutes / 1440,
            notes: [-26, -14].map((levelDb) =>
              cellOf(67, 0.7 * (levelDb + 20) + 0.5 * Math.min(20, minutes) + random.normal(), { levelDb }),
            ),
          })),
        ),
      );
    const loud = loudnessEffect(days(12))!;
    expect(loud.value).toBeCloseTo(7, 0);
    expect(loud.high - loud.low).toBeLessThan(2);
    const warm = warmUpEffect(days(12), flute)!;
    expect(warm.value).toBeCloseTo(10, 0);
    // A note that always comes first must not be taken for cold.
    const inOrder = rememberedOf(
      Array.from({ length: 12 }, (_, day) => day).flatMap((day) =>
        [67, 69, 71].map((written, i) => ({
          day: day + (10 * i) / 1440,
          notes: [cellOf(written, [-9, 4, 12][i]! + random.normal())],
        })),
      ),
    );
    expect(warmUpEffect(inOrder, flute)).toBeNull();
    expect(loudnessEffect(days(3))).toBeNull();
    expect(warmUpEffect(days(3), flute)).toBeNull();
  });
});
