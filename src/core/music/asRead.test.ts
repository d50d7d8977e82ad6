import { findInstrument, instruments, soundingOf } from '@/core/instruments';
import { noteNumber as n } from '@/core/tuning';
import { asRead, barsOf, clefsOf, families, isTransposing } from '.';
import { names, scoreOfFamily as made } from './scores.testing';

const SOUNDING = { pitch: 'sounding', oneClef: false } as const;

test('a clarinet’s C scale reads as B flat at concert pitch, in the key of B flat', () => {
  const clarinet = findInstrument('clarinet-bb')!;
  const scale = made('roaming-scale', 'clarinet-bb', { key: '0', range: { low: n('C4'), high: n('C5') } });
  const { score } = asRead(scale, clarinet, SOUNDING);
  expect(scale.fifths).toBe(0);
  expect(score.fifths).toBe(-2);
  expect(names(score)).toMatch(/^Bb3 C4 D4 Eb4/);
  expect(score.notes.every(({ hand }) => hand === null)).toBe(true);
});

test('what is read at concert pitch is what sounds; music of other instruments stays as it is', () => {
  for (const instrument of instruments)
    for (const family of families) {
      const written = family.make(instrument);
      if (!written.ok) continue;
      const { score } = asRead(written.value, instrument, SOUNDING);
      if (isTransposing(instrument))
        expect(score.notes.map((note) => note.written)).toEqual(
          written.value.notes.map((note) => soundingOf(instrument, note.written)),
        );
      else expect(score).toBe(written.value);
    }
});

test('what sounds low is read in the bass clef, and high phrases of a bassoon stay there on demand', () => {
  const clefsIn = (id: string, note: string, reading: Parameters<typeof asRead>[2]) => {
    const { score, instrument } = asRead(
      made('long-tone', id, { note: n(note) }),
      findInstrument(id)!,
      reading,
    );
    return clefsOf(score, barsOf(score), instrument)[0];
  };
  expect(clefsIn('sax-baritone', 'D4', SOUNDING)).toBe('bass');
  expect(clefsIn('sax-tenor', 'A5', SOUNDING)).toBe('treble');
  expect(clefsIn('clarinet-bb', 'E3', SOUNDING)).toBe('treble');
  expect(clefsIn('bassoon', 'A4', { pitch: 'written', oneClef: false })).toBe('tenor');
  expect(clefsIn('bassoon', 'A4', { pitch: 'written', oneClef: true })).toBe('bass');
});
