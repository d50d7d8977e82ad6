import { findInstrument, writtenRange } from '@/core/instruments';
import { emptyReport, held, lines, listenIn, PUT_IN, repeats, type Place } from './inRooms.testing';

/** A sample of what `npm run bench -- rooms` measures over all instruments and places. */
const INSTRUMENTS = ['flute', 'clarinet-bb', 'bassoon', 'oboe'].map((id) => findInstrument(id)!);
const LIVING: readonly Place[] = [1, 2].map((place) => ({ room: 'living', place }));
const DRY: Place = { room: null, place: 1 };

test('lines in a living room: each note once, begun when it was, next to nothing made up, and no stop a hole', () => {
  const report = emptyReport();
  for (const instrument of INSTRUMENTS)
    for (const place of LIVING) {
      const heard = listenIn(place, lines(instrument, 80 + place.place), report);
      expect(heard.events.filter(({ kind }) => kind === 'gap')).toEqual([]);
    }
  expect(report.foundOnce / report.notes).toBeGreaterThan(0.94);
  expect(report.falseEvents.length / report.minutes).toBeLessThan(1.1);
  const late = report.onsetErrors.map(Math.abs).sort((a, b) => a - b);
  expect(late[Math.floor(0.8 * late.length)]).toBeLessThan(0.02);
  expect(report.gross / report.frames).toBeLessThan(0.003);
});

test('repeated notes are heard where the level hardly falls between them', () => {
  const report = emptyReport();
  for (const instrument of INSTRUMENTS)
    for (const [i, place] of LIVING.entries()) {
      const { low, high } = writtenRange(instrument);
      const written = Math.round(low + (high - low) * (0.3 + 0.4 * i));
      listenIn(
        place,
        { score: repeats(instrument, written, 4), instrument, seed: 1, player: { riseSeconds: 0.02 } },
        report,
      );
    }
  expect(report.foundOnce / report.notes).toBeGreaterThan(0.9);
});

test('what takes the place of a note for a moment is told, though the echo of the note goes on', () => {
  const report = emptyReport();
  for (const instrument of INSTRUMENTS)
    for (const place of LIVING)
      listenIn(place, lines(instrument, 500 + place.place, { break: PUT_IN.break!, squeak: 0.3 }), report);
  const [breaks, squeaks] = ['break', 'squeak'].map((kind) => report.tallies.get(kind)!);
  expect(breaks!.found + squeaks!.found).toBeGreaterThan(0.75 * (breaks!.truth + squeaks!.truth));
  expect(breaks!.truth + squeaks!.truth).toBeGreaterThan(20);
  expect(report.falseEvents.length).toBeLessThan(0.15 * (breaks!.heard + squeaks!.heard));
});

test.each([DRY, LIVING[0]!])('a vibrato is one note, however wide ($room)', (place) => {
  // In a room a swing may still be taken for a stop and a start: docs/measuring.md says how often.
  const chosen = place.room ? INSTRUMENTS.filter(({ id }) => id !== 'bassoon') : INSTRUMENTS;
  for (const instrument of chosen)
    for (const extentCents of place.room ? [30, 40] : [15, 40, 60]) {
      const report = emptyReport();
      const vibrato = { rateHz: 5.5, extentCents };
      const heard = listenIn(
        place,
        { score: held(instrument, 7), instrument, seed: 2, player: { vibrato } },
        report,
      );
      expect(`${instrument.id} ${extentCents} ${heard.notes.length}`).toBe(
        `${instrument.id} ${extentCents} 3`,
      );
    }
});
