import { instruments } from '@/core/instruments';
import { findFamily, keyTitle, spellerOf, type Score } from '.';
import { KEY_OPTIONS, SCALE_OPTIONS, signatureOf } from './families/rows';
import { names, scoreOfFamily as made } from './scores.testing';

const settings = SCALE_OPTIONS.flatMap(([scale]) => KEY_OPTIONS.map(([key]) => ({ scale, key })));

const spelled = (score: Score) => {
  const of = spellerOf(score);
  return [...new Set(score.notes.map((_, i) => of(i)).map(({ step, alter }) => `${step}${alter}`))];
};

test.each(settings)('$scale on $key has each letter once, and no double accidental', ({ scale, key }) => {
  const row = spelled(made('roaming-scale', 'clarinet-bb', { scale, key }));
  expect(row.map((name) => name.charAt(0)).sort()).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G']);
  expect(row.every((name) => Math.abs(Number(name.slice(1))) <= 1)).toBe(true);
});

test('a scale has its own notes, begins and ends on its tonic, and is named by its signature', () => {
  const minor = made('roaming-scale', 'flute', { scale: 'harmonic-minor', key: '3', seed: 4 });
  expect(minor.fifths).toBe(0);
  expect(new Set(names(minor).replace(/\d/g, '').split(' '))).toEqual(
    new Set(['A', 'B', 'C', 'D', 'E', 'F', 'G#']),
  );
  expect(names(minor)).toMatch(/^A\d .* A\d$/);
  expect(keyTitle(-5, 'minor')).toBe('C♯ minor');
  expect(keyTitle(6, 'dorian')).toBe('F♯ dorian');
  expect(signatureOf(6, 'lydian')).toBe(-5);
  expect(signatureOf(-4, 'minor')).toBe(-7);
});

test('a phrase in twelve minor keys has its signature and its raised seventh in each', () => {
  const phrase = made('twelve-keys', 'flute', { scale: 'harmonic-minor', phrase: 'turn', keys: 12 });
  const keys = [...new Set(phrase.notes.map(({ key }) => key))];
  expect(keys).toHaveLength(12);
  expect(phrase.notes.flatMap(({ label }) => label ?? [])).toContain('E♭ minor');
  for (const instrument of instruments)
    for (const scale of ['major', 'harmonic-minor'])
      expect(findFamily('melody')!.make(instrument, { scale }).ok).toBe(true);
});
