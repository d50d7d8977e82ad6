import { findInstrument, instruments, isUsual, ventOf, writtenRange } from '@/core/instruments';
import { noteName, noteNumber } from '@/core/tuning';
import { families, findFamily, optionsOf, spellerOf, type ParameterSpec } from '.';
import { scoreOfFamily as made } from './scores.testing';

type Choice = Extract<ParameterSpec, { kind: 'choice' }>;

const names = (family: string, instrument: string, values = {}) =>
  made(family, instrument, values)
    .notes.map(({ written }) => noteName(written))
    .join(' ');
const first = (family: string, instrument: string) => names(family, instrument).split(' ')[0];

describe('what exercises go through unless told otherwise', () => {
  it('leaves out quarter-tones, half-holes and stopped bells, and what only some instruments reach down to', () => {
    const wrong = families.flatMap((family) =>
      instruments.flatMap((instrument) => {
        const score = family.make(instrument);
        if (!score.ok) return [];
        const lowest = instrument.usualLow ?? writtenRange(instrument).low;
        return score.value.notes
          .filter(({ role }) => role !== 'harmonic')
          .filter(({ written }) => !isUsual(instrument, written) || written < lowest)
          .filter(({ written }) => ventOf(instrument, written)?.mark !== 'cross')
          .map(({ written }) => `${family.id} ${instrument.id} ${noteName(written)}`);
      }),
    );
    expect([...new Set(wrong)]).toEqual([]);
  });

  it('a flute goes down to C, and to B where its player says so', () => {
    expect(first('edge-hold', 'flute')).toBe('C4');
    expect(names('low-chromatics', 'flute', { range: { low: 59, high: 62 } })).toBe(
      'D4 C#4 C4 B3 B3 C4 C#4 D4',
    );
    expect(first('edge-hold', 'clarinet-bass')).toBe('Eb3');
    expect(first('edge-hold', 'clarinet-alto')).toBe('Eb3');
  });

  it('a whistle walks its own scale, and every semitone when asked', () => {
    const range = { low: noteNumber('D4'), high: noteNumber('A4') };
    expect(names('tendency-scan', 'whistle-d', { range, loudness: 'mf' })).toBe('D4 E4 F#4 G4 A4');
    expect(names('tendency-scan', 'whistle-d', { range, loudness: 'mf', through: 'every' })).toBe(
      'D4 Eb4 E4 F4 F#4 G4 G#4 A4',
    );
    expect(names('dynamic-window', 'whistle-d', { range })).toBe('D4 D4 F#4 F#4');
    expect(names('long-hold', 'whistle-d', { range, steps: 2 })).toMatch(/^F#4 E4 D4 G4 F#4 E4 A4 G4 F#4 /);
  });

  it('a rim flute goes by semitones, and by quarter-tones when asked; a flute has none', () => {
    const range = { low: 62, high: 64 };
    const written = (through: string) =>
      made('tendency-scan', 'ney-d', { range, loudness: 'mf', through }).notes.map((note) => note.written);
    expect(written('usual')).toEqual([62, 63, 64]);
    expect(written('quarters')).toEqual([62, 62.5, 63, 63.5, 64]);
    const scan = findFamily('tendency-scan')!;
    expect(scan.make(findInstrument('flute')!, { through: 'quarters' })).toEqual({
      ok: false,
      problem: 'through: must be one of: usual',
    });
  });

  it('offers a choice only where the instrument has one', () => {
    const { through } = findFamily('tendency-scan')!.specs as unknown as Record<string, Choice>;
    const offered = (id: string) => optionsOf(through!, findInstrument(id)!).map(([option]) => option);
    expect(['flute', 'recorder-alto', 'whistle-c', 'ney-d'].map(offered)).toEqual([
      ['usual'],
      ['usual', 'every'],
      ['usual', 'every'],
      ['usual', 'quarters'],
    ]);
  });

  it.each([
    ['flute', 'A6'],
    ['clarinet-bb', 'C6'],
    ['clarinet-bass', 'C6'],
    ['oboe', 'C6'],
    ['bassoon', 'A4'],
    ['sax-tenor', 'F6'],
    ['recorder-alto', 'D6'],
    ['whistle-d', 'B5'],
  ])('pairs into the highest notes of the %s start from %s', (instrument, from) => {
    expect(first('altissimo-pairs', instrument)).toBe(from);
  });

  it('every clarinet has the test fingering, and no other instrument is told of one', () => {
    const labelled = instruments.filter(({ id }) =>
      made('register-test', id).notes.some(({ label, hand }) => label !== null || hand === 'test'),
    );
    expect(labelled.map(({ id }) => id)).toEqual(
      instruments.filter(({ series }) => series === 'odd').map(({ id }) => id),
    );
    expect(first('register-test', 'clarinet-bass')).toBe('G#5');
  });

  it('spells what passes by semitones with flats on the way down and with sharps on the way up', () => {
    const score = made('low-chromatics', 'recorder-alto', {
      range: { low: noteNumber('F4'), high: noteNumber('C5') },
    });
    const spelled = spellerOf(score);
    const signs = { [-1]: '♭', 0: '', 1: '♯' } as Record<number, string>;
    expect(score.notes.map((_, i) => `${spelled(i).step}${signs[spelled(i).alter]}`).join(' ')).toBe(
      'C B B♭ A A♭ G G♭ F F F♯ G G♯ A A♯ B C',
    );
    const groups = (low: number, high: number) => {
      const three = made('three-note-groups', 'recorder-tenor', { range: { low, high } });
      return three.notes
        .map((_, i) => spellerOf(three)(i))
        .map(({ step, alter }) => `${step}${signs[alter]}`);
    };
    expect(groups(71, 75).join(' ')).toBe('E♭ D D♭ D♭ C B');
    // Also where the music begins with it.
    expect(groups(64, 68).join(' ')).toBe('A♭ G G♭ G♭ F E');
    const breathing = made('low-chromatics', 'ney-a');
    const [, second] = breathing.notes.map((_, i) => spellerOf(breathing)(i));
    expect(breathing.notes[1]!.breathAfter && second).toMatchObject({ step: 'A', alter: -1 });
  });
});
