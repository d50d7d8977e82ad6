import * as fc from 'fast-check';
import { thinned, WHOLE } from '@/core/base/thinned.testing';
import { findInstrument, type Instrument } from '@/core/instruments';
import type { FaultRates } from '@/core/lab';
import type { Score } from '@/core/music';
import { emptyReport, held, listenIn, repeats } from './inRooms.testing';
import { hadStopped, type Stopping } from './stopped';

const INSTRUMENTS = thinned(['flute', 'recorder-tenor', 'clarinet-eb', 'sax-alto', 'oboe'], 2);

/** Hears something in a living room that is played by each of the instruments, in two places. */
function hear(faults: Partial<FaultRates>, make: (instrument: Instrument, seed: number) => Score) {
  const report = emptyReport();
  for (const place of [1, 2])
    for (const id of INSTRUMENTS) {
      const instrument = findInstrument(id)!;
      const score = make(instrument, 40 + place);
      listenIn({ room: 'living', place }, { score, instrument, seed: 40 + place, faults }, report);
    }
  return report;
}

test('a note that is tongued again and begins wrongly in a living room is a note of its own, with a blip', () => {
  const { foundOnce, notes, tallies, falseEvents } = hear({ blip: 0.6 }, (instrument) =>
    repeats(instrument, 74, 2, 6),
  );
  expect(notes - foundOnce).toBeLessThanOrEqual(4);
  expect(tallies.get('blip')!.found).toBeGreaterThanOrEqual(WHOLE ? 5 : 2);
  expect(falseEvents.filter((event) => event.includes('false break'))).toEqual([]);
});

test('a break in the middle of a note begins none', () => {
  const { foundOnce, notes, tallies } = hear({ break: 1 }, held);
  expect(notes - foundOnce).toBeLessThanOrEqual(1);
  const { truth, found } = tallies.get('break')!;
  expect(truth).toBeGreaterThan(WHOLE ? 11 : 3);
  expect(found).toBe(truth);
  expect(tallies.get('blip')).toBeUndefined();
});

const HOP = 0.0054;
const FRAMES = 80;
const AT = 50;
/** A tone of 0 dB whose level and partials fall by so much, all at once, some frames before something else begins. */
function falling(depth: number, before: number, novelty: number): Stopping {
  const fall = AT - before;
  return {
    line: {
      hopDb: Float32Array.from({ length: FRAMES }, (_, i) => (i >= fall && i < AT ? -depth : 0)),
      growthDb: Float32Array.from({ length: FRAMES }, (_, i) => (i === fall ? -depth : 0)),
      novelty: Float32Array.from({ length: FRAMES }, (_, i) => (i === fall ? novelty : 0)),
    },
    frames: { hopSeconds: HOP, startSeconds: 0 },
    rings: true,
    due: [],
  };
}
const depths = fc.integer({ min: 0, max: 40 });
const frames = fc.integer({ min: 4, max: 12 });
const percent = fc.integer({ min: 0, max: 100 });

test('the deeper a tone falls, and the newer that is, the sooner it had stopped', () => {
  fc.assert(
    fc.property(depths, depths, frames, percent, percent, fc.boolean(), (a, b, before, n, m, isAbove) => {
      const told = (depth: number, novelty: number) =>
        hadStopped(AT, isAbove, falling(depth, before, novelty / 100));
      const less = told(Math.min(a, b), Math.min(n, m));
      expect(told(Math.max(a, b), Math.max(n, m)) || !less).toBe(true);
    }),
  );
});

test('where a take begins nothing had stopped', () => {
  for (let from = 0; from < 12; from++)
    for (const isAbove of [true, false]) expect(hadStopped(from, isAbove, falling(12, 8, 1))).toBe(false);
});

test('what falls by 12 dB at once had stopped, and what goes on had not', () => {
  for (const isAbove of [true, false]) {
    expect(hadStopped(AT, isAbove, falling(12, 8, 1))).toBe(true);
    expect(hadStopped(AT, isAbove, falling(1, 8, 0.2))).toBe(false);
    expect(hadStopped(AT, isAbove, { ...falling(4, 6, 1), rings: false })).toBe(false);
    expect(hadStopped(AT, isAbove, { ...falling(12, 6, 1), rings: false })).toBe(true);
  }
});

test('where the music begins a note less is enough', () => {
  const due = [{ from: AT * HOP - 0.1, to: AT * HOP + 0.1 }];
  const later = [{ from: AT * HOP + 0.1, to: AT * HOP + 0.3 }];
  fc.assert(
    fc.property(depths, frames, percent, fc.boolean(), (depth, before, novelty, isAbove) => {
      const stopping = falling(depth, before, novelty / 100);
      const told = hadStopped(AT, isAbove, stopping);
      expect(hadStopped(AT, isAbove, { ...stopping, due }) || !told).toBe(true);
      expect(hadStopped(AT, isAbove, { ...stopping, due: later })).toBe(told);
    }),
  );
  const slight = falling(5, 8, 0.6);
  expect(hadStopped(AT, true, slight)).toBe(false);
  expect(hadStopped(AT, true, { ...slight, due })).toBe(true);
});

test('and what lies below the tone may be found before the stop, but only there', () => {
  const due = [{ from: AT * HOP - 0.1, to: AT * HOP + 0.1 }];
  const EARLY = 6;
  const stopping = falling(12, 2, 1);
  expect(hadStopped(AT - EARLY, false, stopping)).toBe(false);
  expect(hadStopped(AT - EARLY, true, { ...stopping, due })).toBe(false);
  expect(hadStopped(AT - EARLY, false, { ...stopping, due })).toBe(true);
  expect(hadStopped(AT - 2 * EARLY, false, { ...stopping, due })).toBe(false);
});
