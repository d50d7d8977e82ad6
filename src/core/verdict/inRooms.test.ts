import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { faultlessIn } from './rooms.testing';

// `npm run bench -- rooms --what=families` counts all families, instruments and places.
test.each([
  ['recorder-alto', 'subdivision-ladder', 2],
  ['oboe', 'subdivision-ladder', 2],
  ['clarinet-bb', 'octave-slurs', 1],
  ['flute', 'long-tone', 3],
] as const)('a faultless %s is told of no fault in %s in a living room (place %d)', (id, familyId, place) => {
  const report = faultlessIn('living', [place], [findInstrument(id)!], [findFamily(familyId)!]);
  expect(report.takes).toBe(1);
  expect(report.wrong).toEqual([]);
});

test.each([
  ['flute', 'tendency-scan', null],
  ['oboe', 'octave-slurs', null],
  ['flute', 'roaming-scale', 'living'],
  ['flute', 'long-hold', 'living'],
] as const)(
  'a faultless %s that swings where vibrato is wanted is told of no fault in %s (%s)',
  (id, familyId, room) => {
    const report = faultlessIn(room, [1], [findInstrument(id)!], [findFamily(familyId)!], {
      vibrato: 'wanted',
    });
    expect(report.takes).toBe(1);
    expect(report.wrong).toEqual([]);
  },
);
