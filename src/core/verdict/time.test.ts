import * as fc from 'fast-check';
import { scoreOfFamily } from '@/core/music/scores.testing';
import {
  judgedAsWritten,
  kindsOf,
  said,
  sentenceOf,
  wholeValue as valueOf,
  type Otherwise,
} from './asWritten.testing';
import { limitsOf } from '.';

const scale = scoreOfFamily('roaming-scale', 'flute', { tempo: 90, slurred: false });
const ladder = scoreOfFamily('subdivision-ladder', 'flute', { top: '8' });
/** Every attack moved by what is told of its beat, in seconds. */
const moved = (score: typeof scale, by: (beat: number, index: number) => number): Otherwise => ({
  note: ({ startBeat, beats, index }) => {
    const second = 60 / score.tempo!;
    const start = 1 + startBeat * second + by(startBeat, index);
    return { startSeconds: start, endSeconds: start + 0.8 * beats * second };
  },
});

describe('against the beat', () => {
  it('the middle offset is what it was, and the evenness untouched by it', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90, max: 90 }), (ms) => {
        fc.pre(Math.abs(ms) !== limitsOf('steady').rushMs);
        const judged = judgedAsWritten(
          scale,
          moved(scale, () => ms / 1000),
        );
        expect(valueOf(judged, 'offset')).toBeCloseTo(ms, 6);
        expect(valueOf(judged, 'attack-spread')).toBeCloseTo(0, 6);
        const beyond = Math.abs(ms) > limitsOf('steady').rushMs;
        expect(kindsOf(judged).filter((kind) => kind === 'rush' || kind === 'drag')).toEqual(
          beyond ? [ms < 0 ? 'rush' : 'drag'] : [],
        );
      }),
      { numRuns: 30 },
    );
  });

  it('a tempo of one’s own is told as a tempo', () => {
    for (const [ratio, word, kind] of [
      [0.97, 'ran ahead', 'rush'],
      [1.04, 'fell behind', 'drag'],
    ] as const) {
      const second = 60 / scale.tempo!;
      const few = { ...scale, notes: scale.notes.slice(0, 24) };
      const judged = judgedAsWritten(
        few,
        moved(few, (beat) => beat * second * (ratio - 1)),
      );
      expect(valueOf(judged, 'tempo')).toBeCloseTo(90 / ratio, 0);
      expect(sentenceOf(judged, 'offset')).toContain(word);
      expect(kindsOf(judged)).toContain(kind);
    }
  });

  it('unevenness is the spread about one’s own line', () => {
    const judged = judgedAsWritten(
      scale,
      moved(scale, (_, i) => 0.05 * (i % 2 === 0 ? 1 : -1)),
    );
    expect(valueOf(judged, 'attack-spread')).toBeCloseTo(50, -1);
    expect(kindsOf(judged)).toContain('uneven');
  });

  it('what is not sure of the device is said, and weighs less', () => {
    const late = moved(scale, () => 0.08);
    const sure = judgedAsWritten(scale, late);
    const assumed = judgedAsWritten(scale, {
      ...late,
      timing: { roundTrip: { seconds: 0, how: 'assumed' } },
    });
    const of = ({ faults }: typeof sure) => faults.find(({ kind }) => kind === 'drag')!.confidence;
    expect(of(assumed)).toBeLessThan(of(sure));
    expect(sentenceOf(assumed, 'offset')).toMatch(/has not been measured/);
  });

  it('the round trip is taken off', () => {
    const judged = judgedAsWritten(scale, {
      ...moved(scale, () => 0.12),
      timing: { roundTrip: { seconds: 0.1, how: 'device' } },
    });
    expect(valueOf(judged, 'offset')).toBeCloseTo(20, 6);
  });
});

test('in free time nothing is said of the beat, with the reason', () => {
  const free = { ...scale, tempo: null };
  const judged = judgedAsWritten(free);
  expect(sentenceOf(judged, 'offset')).toMatch(/no beat to measure against/);
  expect(valueOf(judged, 'offset')).toBeNaN();
});

describe('the ladder', () => {
  it('is told step by step, and its hardest step found', () => {
    const bar = (beat: number) => Math.floor(beat / 4);
    const eight = bar(ladder.notes.find(({ beats }) => beats === 0.5)!.startBeat);
    const judged = judgedAsWritten(
      ladder,
      moved(ladder, (beat, i) => (bar(beat) === eight ? 0.04 * (i % 2) : 0)),
    );
    const [chart] = said(judged).charts;
    if (chart?.kind !== 'rows') throw new Error('no ladder');
    expect(chart.rows.map(({ name }) => name)).toEqual([1, 2, 4, 8, 4, 2, 1].map((each) => `${each} a bar`));
    expect(valueOf(judged, 'hardest-step')).toBe(8);
  });
});

test('one note that is late by itself is told at its place, in ms, and makes nothing else uneven', () => {
  const judged = judgedAsWritten(
    scale,
    moved(scale, (_, i) => (i === 7 ? 0.16 : 0.01)),
  );
  expect(judged.faults).toMatchObject([{ kind: 'late', group: 7, amount: { limit: 110 } }]);
  expect(said(judged).headline).toMatch(/came 160 ms late$/);
});

describe('swing', () => {
  it.each([1, 1.5, 2, 3])('of %f to one is measured as that', (ratio) => {
    const swung = scoreOfFamily('roaming-scale', 'flute', {
      tempo: 60,
      swing: true,
      slurred: false,
    });
    expect(swung.swing).toBe(true);
    const first = ratio / (1 + ratio);
    const judged = judgedAsWritten(swung, {
      note: ({ startBeat }) => {
        const whole = Math.floor(startBeat);
        const start = 1 + whole + (startBeat > whole ? first : 0);
        return { startSeconds: start, endSeconds: start + 0.2 };
      },
    });
    expect(valueOf(judged, 'swing')).toBeCloseTo(ratio, 1);
  });
});

describe('attacks', () => {
  it('are quick or slow, and a scoop is told by its side', () => {
    const judged = judgedAsWritten(scoreOfFamily('low-chromatics', 'bassoon'), {
      note: () => ({ attack: { riseSeconds: 0.05, scoopCents: -25, speechSeconds: 0 } }),
      events: [{ group: 1, kind: 'late-speech', after: -0.06 }],
    });
    // 60 ms of air are within the limit.
    expect(judged.faults).toEqual([]);
    expect(valueOf(judged, 'rise')).toBe(50);
    expect(sentenceOf(judged, 'rise')).toBe('The notes spoke at once.');
    expect(sentenceOf(judged, 'scoop')).toMatch(/from below/);
  });
});
