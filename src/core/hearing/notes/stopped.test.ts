import { findInstrument, type Instrument } from '@/core/instruments';
import type { FaultRates } from '@/core/lab';
import type { Score } from '@/core/music';
import { emptyReport, held, listenIn, repeats } from './inRooms.testing';

const INSTRUMENTS = ['flute', 'recorder-tenor', 'clarinet-eb', 'sax-alto', 'oboe'];

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
  expect(tallies.get('blip')!.found).toBeGreaterThanOrEqual(5);
  expect(falseEvents.filter((event) => event.includes('false break'))).toEqual([]);
});

test('a break in the middle of a note begins none', () => {
  const { foundOnce, notes, tallies } = hear({ break: 1 }, held);
  expect(notes - foundOnce).toBeLessThanOrEqual(1);
  expect(tallies.get('break')).toMatchObject({ truth: 12, found: 12 });
  expect(tallies.get('blip')).toBeUndefined();
});
