import * as fc from 'fast-check';
import type { Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, soundingOf } from '@/core/instruments';
import type { Note } from '@/core/hearing/notes';
import type { Trace } from '@/core/take';
import { EMPTY_TRACE, emptyTake } from '@/core/take/takes.testing';
import { LEVELS } from '@/core/music';
import { judge, LIMIT_IDS, limitsOf, ownLimitsSchema, type Judgement } from '.';
import { said, sentenceOf, wholeValue as value } from './asWritten.testing';
import { justInterval } from './justInterval';
import { differenceOf, type Difference } from './measures';
import { binned, ringOf, tuneOf } from '@/core/hearing/following';

const STEP = 0.03;
const limits = limitsOf('steady');

interface Sound {
  readonly cents: number;
  readonly levelDb: number;
  readonly richness?: number;
  readonly airinessDb?: number;
}

/** A take whose trace is known in every point: one score, held notes, and what they did. */
function takeOf(
  family: string,
  values: Record<string, unknown>,
  seconds: number,
  sound: (t: number) => Sound,
): Judgement {
  return judgedOf(scoreOfFamily(family, 'flute', values), seconds, sound);
}

function judgedOf(score: Score, seconds: number, sound: (t: number) => Sound): Judgement {
  const midi = soundingOf(findInstrument('flute')!, score.notes[0]!.written);
  const points = Array.from({ length: Math.ceil(seconds / STEP) }, (_, i) => sound((i + 0.5) * STEP));
  const trace: Trace = {
    ...EMPTY_TRACE,
    stepSeconds: STEP,
    pitchMidi: points.map(({ cents }) => midi + cents / 100),
    levelDb: points.map(({ levelDb }) => levelDb),
    airinessDb: points.map(({ airinessDb }) => airinessDb ?? -30),
    brightness: points.map(() => 2),
    richness: points.map(({ richness }) => richness ?? 8),
  };
  const note = {
    startSeconds: 0,
    endSeconds: seconds,
    soundingMidi: midi,
    centreCents: 0,
    levelDb: -20,
    wobbleCents: 1,
    richness: 8,
    airinessDb: -30,
    attack: { riseSeconds: 0.03, scoopCents: 0, speechSeconds: 0 },
    partialsDb: [],
    unknown: {},
  } as unknown as Note;
  const timing = { firstBeatSeconds: 0, roundTrip: { seconds: 0, how: 'exact' as const }, resumed: [] };
  return judge(emptyTake({ score, notes: [note], trace, durationSeconds: seconds, timing }), limits);
}

/** The lines of a take's one chart of curves. */
const curves = (judgement: Judgement) =>
  said(judgement).charts.flatMap((chart) => (chart.kind === 'curves' ? chart.lines : []));
const isSure = (found: Difference | null) => found !== null && (found.low > 0 || found.high < 0);

describe('a breath sweep', () => {
  /** Up for eight seconds and down for eight: pitch crosses its target at `tune`, partials are most at `ring`. */
  const sweep = (ring: number, tune: number, lag = 0) =>
    takeOf('breath-sweep', { note: 69 }, 16, (t) => {
      const up = t < 8;
      const levelDb = -50 + 40 * (up ? t / 8 : (16 - t) / 8);
      return {
        levelDb,
        cents: 1.5 * (levelDb - tune - (up ? 0 : lag)),
        richness: 12 - Math.abs(levelDb - ring) / 3,
        airinessDb: -30 + Math.abs(levelDb - ring) / 3,
      };
    });

  it('finds where it rings, where it is in tune, and what lies between', () => {
    const take = sweep(-18, -26);
    // The loudest is −10 dBFS.
    expect(Math.abs(value(take, 'ring') - 8)).toBeLessThanOrEqual(2);
    expect(Math.abs(value(take, 'in-tune') - 16)).toBeLessThanOrEqual(1.5);
    expect(Math.abs(value(take, 'ring-gap') + 8)).toBeLessThanOrEqual(2.5);
    expect(said(take).headline).toMatch(/^A4 rings most where it is \d+ cents high$/);
    expect(curves(take).map(({ name }) => name)).toEqual(['louder', 'softer']);
  });

  it('keeps the way up and the way down apart', () => {
    expect(Math.abs(value(sweep(-18, -26, 8), 'hysteresis') + 8)).toBeLessThanOrEqual(2);
  });

  it('says not known where the tone is the same at every breath, or never in tune', () => {
    const same = takeOf('breath-sweep', { note: 69 }, 16, (t) => ({
      levelDb: -50 + 2.5 * Math.min(t, 16 - t),
      cents: 20,
    }));
    expect(value(same, 'ring')).toBeNaN();
    expect(value(same, 'in-tune')).toBeNaN();
    expect(sentenceOf(same, 'in-tune')).toMatch(/never crossed its target.*20 cents high/);
  });

  it('crosses its target between two bins, wherever that is', () => {
    fc.assert(
      fc.property(fc.double({ min: -45, max: -15, noNaN: true }), (tune) => {
        const sounds = Array.from({ length: 400 }, (_, i) => {
          const levelDb = -50 + i / 10;
          return { levelDb, cents: 2 * (levelDb - tune), ring: 0 };
        });
        expect(Math.abs((tuneOf(binned(sounds)) ?? NaN) - tune)).toBeLessThan(0.6);
        expect(ringOf(binned(sounds))).toBeNull();
      }),
    );
  });
});

describe('bends', () => {
  it('of which no tone was heard are not said to have kept it', () => {
    const silent = takeOf('bends', { note: 69 }, 24, (t) => ({ cents: t < 2 ? 0 : NaN, levelDb: -20 }));
    expect(sentenceOf(silent, 'bend-level')).toMatch(/^Not known: too little/);
  });

  const legs = (t: number): number => {
    if (t < 4) return 0;
    if (t < 8) return -12 * (t - 4);
    if (t < 12) return -48 + 12 * (t - 8);
    if (t < 16) return 7 * (t - 12);
    if (t < 20) return 28 - 7 * (t - 16);
    return 0;
  };

  it('are as far as they went, each way, and smooth', () => {
    const take = takeOf('bends', { note: 69 }, 24, (t) => ({ cents: legs(t), levelDb: -20 }));
    expect(Math.abs(value(take, 'bend-down') - 48)).toBeLessThan(3);
    expect(Math.abs(value(take, 'bend-up') - 28)).toBeLessThan(3);
    expect(value(take, 'bend-even')).toBeLessThan(3);
    expect(value(take, 'bend-level')).toBeLessThan(1);
    expect(take.faults).toEqual([]);
    expect(curves(take)).toHaveLength(4);
  });

  it('are in steps where they went in steps, and say what the tone lost', () => {
    const take = takeOf('bends', { note: 69 }, 24, (t) => ({
      cents: 24 * Math.round(legs(t) / 24),
      levelDb: -20 + legs(t) / 4,
    }));
    expect(value(take, 'bend-even')).toBeGreaterThan(4);
    expect(value(take, 'bend-level')).toBeGreaterThan(9);
  });
});

describe('lines of level', () => {
  const swell = (t: number) => -40 + 20 * (1 - Math.abs(t - 4) / 4);

  it('are even when they are, and their peak is where it was', () => {
    const take = takeOf('swells', { range: { low: 69, high: 70 } }, 8, (t) => ({
      cents: 0,
      levelDb: swell(t),
    }));
    expect(value(take, 'line')).toBeLessThan(0.6);
    expect(Math.abs(value(take, 'peak'))).toBeLessThan(200);
  });

  it('count the steps the wrong way', () => {
    const take = takeOf('swells', { range: { low: 69, high: 70 } }, 8, (t) => ({
      cents: 0,
      levelDb: swell(t) - (t > 1.8 && t < 2.4 ? 7 : 0),
    }));
    expect(sentenceOf(take, 'line')).toMatch(/1 step the wrong way|^The line is uneven at A4/);
    expect(take.figures.find(({ id }) => id === 'turns')).toMatchObject({ value: 1 });
  });

  it('go with the pitch as they do', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (slope) => {
        const take = takeOf('tapers', { range: { low: 69, high: 69 } }, 4, (t) => ({
          levelDb: -15 - 8 * t,
          cents: (slope * -8 * t) / 10,
        }));
        expect(Math.abs(value(take, 'pitch-per-level') - slope)).toBeLessThan(0.3);
      }),
      { numRuns: 30 },
    );
  });
});

describe('a difference between two conditions', () => {
  it('is claimed only where its interval leaves zero out', () => {
    const even = Array.from({ length: 20 }, (_, i) => Math.sin(i * 12.9) * 5);
    expect(isSure(differenceOf(even, even))).toBe(false);
    const moved = differenceOf(
      even,
      even.map((x) => x + 9),
    );
    expect(isSure(moved)).toBe(true);
    expect(moved?.difference).toBeCloseTo(9, 6);
    expect(differenceOf([1, 2], [3, 4])).toBeNull();
  });

  it('claims about one time in twenty what is not there', () => {
    let claims = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const draw = (offset: number) =>
        Array.from(
          { length: 15 },
          (_, i) => (Math.sin(seed * 78.233 + (i + offset) * 12.9898) * 43758.5453) % 1,
        );
      if (isSure(differenceOf(draw(0), draw(1000), seed))) claims++;
    }
    expect(claims).toBeLessThan(12);
  });
});

describe('just intervals', () => {
  it('lie where acoustics has them', () => {
    expect(justInterval(67, 67, 60).cents).toBeCloseTo(-1.955, 2);
    expect(justInterval(64, 64, 60).cents).toBeCloseTo(13.686, 2);
    expect(justInterval(72, 72, 60).cents).toBeCloseTo(0, 6);
    // A fourth under the root is the fifth over its lower octave.
    expect(justInterval(55, 55, 60).cents).toBeCloseTo(-1.955, 2);
  });

  it('beat as their coinciding partials do', () => {
    // Tempered fifth on A3: 3 × 220 against 2 × 329.63 Hz.
    expect(justInterval(64, 64, 57).beatHz).toBeCloseTo(660 - 659.255, 2);
    expect(justInterval(69.01, 69, 69).beatHz).toBeCloseTo(440 * 2 ** (0.01 / 12) - 440, 6);
  });

  it('do not beat when they are pure, whatever the octave', () => {
    fc.assert(
      fc.property(fc.integer({ min: -24, max: 24 }), (size) => {
        const off = justInterval(60 + size, 60 + size, 60).cents;
        expect(justInterval(60 + size - off / 100, 60 + size, 60).beatHz).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('limits', () => {
  it('grow stricter with the level, every one of them', () => {
    const [first, ...rest] = LEVELS.map((level) => limitsOf(level));
    for (const id of LIMIT_IDS) {
      const row = [first!, ...rest].map((each) => each[id]);
      const sign = Math.sign(row[3]! - row[0]!);
      expect(sign).not.toBe(0);
      for (let i = 1; i < 4; i++) expect(sign * (row[i]! - row[i - 1]!)).toBeGreaterThanOrEqual(0);
    }
  });

  it('can be set otherwise within reason, and say what reason is', () => {
    expect(limitsOf('steady', { centreCents: 20 }).centreCents).toBe(20);
    const refused = ownLimitsSchema.safeParse({ centreCents: 500 });
    expect(refused.error?.issues[0]?.message).toBe('Off centre must lie between 1 and 40 cents');
  });
});
