import * as fc from 'fast-check';
import type { Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { pagesOf, type Page } from '@/core/hearing/following';
import { findInstrument, instruments, type Instrument } from '@/core/instruments';
import { groupsOf } from '@/core/hearing/matching';
import { displayName } from '@/core/tuning';
import { stagingOf } from './staging';

const nameOf = (midi: number) => displayName(midi, 'english');
const staged = (page: Page, score: Score, instrument: Instrument) =>
  stagingOf(page, score, instrument, 366, 340, nameOf, ({ written }) => nameOf(written));

const flute = findInstrument('flute')!;

function firstPage(family: string, instrumentId = 'flute') {
  const score = scoreOfFamily(family, instrumentId);
  const instrument = findInstrument(instrumentId)!;
  const groups = groupsOf(score, instrument);
  return { score, page: pagesOf(score, groups)[0]!, instrument };
}

const families = ['octave-slurs', 'tendency-scan', 'long-tone', 'roaming-scale', 'harmonic-climb'];

describe.each(families)('the eyes of %s', (family) => {
  it('stand inside the picture in time and height, higher where the note is higher, on every instrument', () => {
    for (const { id } of instruments) {
      const { score, page, instrument } = firstPage(family, id);
      const { eyes, half } = staged(page, score, instrument);
      for (const eye of eyes) {
        expect(eye.x).toBeGreaterThanOrEqual(0);
        expect(eye.x + eye.width).toBeLessThanOrEqual(366 + 26);
        expect(eye.y - half).toBeGreaterThan(0);
        expect(eye.y + half).toBeLessThan(340);
      }
      const sorted = [...eyes].sort((a, b) => a.group.sounding - b.group.sounding);
      for (const [i, eye] of sorted.entries())
        expect(eye.y).toBeLessThanOrEqual((sorted[i - 1]?.y ?? 999) + 1e-9);
    }
  });

  it('let the thread pass through their middle when it is in tune, and rise with the pitch everywhere', () => {
    const { score, page } = firstPage(family);
    const { eyes, yOf } = staged(page, score, flute);
    for (const eye of eyes) expect(yOf(eye.group.sounding)).toBeCloseTo(eye.y, 6);
    fc.assert(
      fc.property(
        fc.double({ min: 50, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (midi, up) => {
          expect(yOf(midi + up)).toBeLessThanOrEqual(yOf(midi) + 1e-9);
        },
      ),
    );
  });
});

it('magnifies a few cents so that they can be seen from a metre away', () => {
  const { score, page } = firstPage('octave-slurs');
  const { eyes, yOf } = staged(page, score, flute);
  const eye = eyes[0]!;
  expect(yOf(eye.group.sounding - 0.08) - eye.y).toBeGreaterThan(4);
});

it('draws the seams between the notes, one line for those that share a place', () => {
  const { score, page } = firstPage('octave-slurs');
  expect(staged(page, score, flute).seams.map((seam) => seam.text)).toEqual(['seam E♭5–E5']);
  const oboe = firstPage('octave-slurs', 'oboe');
  const { seams } = staged(oboe.page, oboe.score, oboe.instrument);
  expect(new Set(seams.map((seam) => seam.y)).size).toBe(seams.length);
});
