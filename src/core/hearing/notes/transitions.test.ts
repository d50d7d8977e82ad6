import { scoreOf } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import { playAndHear } from './playAndHear.testing';

/** Pairs slurred to and fro between two written notes. */
const pairs = (instrumentId: string, a: number, b: number) =>
  scoreOf({
    family: 'pairs',
    title: 'pairs',
    instrumentId,
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'none',
    notes: Array.from({ length: 6 }, (_, i) => ({
      written: i % 2 === 0 ? a : b,
      startBeat: i,
      beats: 1,
      attack: i === 0 ? ('tongued' as const) : ('none' as const),
      dynamic: 'mf' as const,
    })),
  });

describe.each([
  ['flute', 64, 76],
  ['bassoon', 45, 57],
  ['clarinet-bb', 60, 79],
  ['recorder-alto', 67, 69],
])('slurs on the %s', (id, a, b) => {
  const instrument = findInstrument(id)!;

  it('have neither hole nor push when they are clean, and settle at once', () => {
    const { heard } = playAndHear(pairs(id, a, b), instrument, 3, {});
    expect(heard.transitions).toHaveLength(5);
    for (const each of heard.transitions) {
      expect(each.to).toBe(each.from + 1);
      expect(each.dipDb).toBeLessThan(3);
      expect(each.bumpDb).toBeLessThan(3);
      expect(each.seconds).toBeLessThan(0.06);
      expect(Math.abs(each.levelStepDb ?? 0)).toBeLessThan(2);
      expect(each.overshootCents).toBeLessThan(15);
    }
  });

  it('show the hole that was played, as deep as it was', () => {
    const { performance, heard } = playAndHear(pairs(id, a, b), instrument, 5, { gap: 1 });
    const holes = performance.events.filter((event) => event.kind === 'gap');
    expect(holes).toHaveLength(5);
    for (const hole of holes) {
      const near = heard.transitions.find((each) => Math.abs(each.endSeconds - hole.startSeconds) < 0.15);
      expect(near?.dipDb).toBeGreaterThan(6);
    }
  });
});

it('is no transition where the tongue parted the notes, or where levels are not known', () => {
  const flute = findInstrument('flute')!;
  const score = pairs('flute', 67, 69);
  const tongued = {
    ...score,
    notes: score.notes.map((note) => ({ ...note, attack: 'tongued' as const, breathAfter: true })),
  };
  expect(playAndHear(tongued, flute, 3, {}).heard.transitions).toHaveLength(0);
});

describe.each([
  ['flute', 64],
  ['bassoon', 43],
  ['sax-alto', 62],
])('an octave on the %s that is reached by way of the mode above', (id, low) => {
  it('is a blip of the upper note, though between the two the common period is the lower note’s', () => {
    const instrument = findInstrument(id)!;
    for (const seed of [1, 2, 3]) {
      const { heard, performance } = playAndHear(pairs(id, low, low + 12), instrument, seed, { blip: 1 });
      const upwards = performance.events.filter(({ noteIndex }) => noteIndex % 2 === 1);
      expect(upwards).toHaveLength(3);
      for (const { noteIndex, endSeconds } of upwards) {
        const inNote = heard.events.filter((event) => event.noteIndex === noteIndex);
        expect(inNote.map(({ kind }) => kind)).toContain('blip');
        // The lower note ended where it was left, not after the blip.
        expect(heard.notes[noteIndex - 1]!.endSeconds).toBeLessThan(endSeconds);
      }
    }
  });
});
