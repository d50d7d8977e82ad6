import { ANYTHING, asksAnything, isWanted, type LogQuery } from './logQuery';
import { rowOf } from './memory.testing';

const row = rowOf(1, {
  instrumentId: 'bassoon',
  family: 'tapers',
  title: 'Tapers',
  faults: { hole: 2 },
  reed: 'the new reed',
  cue: 'head still',
  heard: [50, 57],
  audioBytes: 9,
  remark: 'a cold room',
});

test('a row is found by anything that is so of it, and by nothing else', () => {
  const asked: readonly (readonly [keyof LogQuery, unknown, unknown])[] = [
    ['instrumentId', 'bassoon', 'flute'],
    ['family', 'tapers', 'swells'],
    ['fault', 'hole', 'squeak'],
    ['reed', 'the new reed', 'the old reed'],
    ['cue', 'head still', 'belly'],
    ['heard', 57, 58],
    ['seam', [50, 57], [57, 58]],
    ['text', 'COLD tapers', 'cold swells'],
  ];
  for (const [part, so, otherwise] of asked) {
    expect([part, isWanted(row, { ...ANYTHING, [part]: so })]).toEqual([part, true]);
    expect([part, isWanted(row, { ...ANYTHING, [part]: otherwise })]).toEqual([part, false]);
    expect(asksAnything({ ...ANYTHING, [part]: so })).toBe(true);
  }
});

test('sound and a remark are asked for only where they are asked for', () => {
  const bare = rowOf(2);
  expect(isWanted(bare, ANYTHING)).toBe(true);
  expect(asksAnything(ANYTHING)).toBe(false);
  for (const part of ['withSound', 'remarked'] as const) {
    expect(isWanted(bare, { ...ANYTHING, [part]: true })).toBe(false);
    expect(isWanted(row, { ...ANYTHING, [part]: true })).toBe(true);
  }
});
