import fc from 'fast-check';
import {
  displayName,
  midiToHertz,
  noteNumber,
  spell,
  spelledMidi,
  spokenName,
  targetHertz,
  temperaments,
  temperedOffset,
} from '.';

const centsOf = (id: string) =>
  temperaments.find((each) => each.id === id)!.cents.map((c) => Math.round(100 * c) / 100);

describe('temperaments against published values', () => {
  it.each([
    ['just', [0, 111.73, 203.91, 315.64, 386.31, 498.04, 590.22, 701.96, 813.69, 884.36, 1017.6, 1088.27]],
    [
      'pythagorean',
      [0, 113.69, 203.91, 294.13, 407.82, 498.04, 611.73, 701.96, 815.64, 905.87, 996.09, 1109.78],
    ],
    [
      'meantone',
      [0, 76.05, 193.16, 310.26, 386.31, 503.42, 579.47, 696.58, 772.63, 889.74, 1006.84, 1082.89],
    ],
    [
      'well-quarter',
      [0, 90.22, 192.18, 294.13, 390.22, 498.04, 588.27, 696.09, 792.18, 888.27, 996.09, 1092.18],
    ],
    ['well-sixth', [0, 94.13, 196.09, 298.04, 392.18, 501.96, 592.18, 698.04, 796.09, 894.13, 1000, 1090.22]],
  ])('%s', (id, published) => {
    centsOf(id).forEach((cents, i) => expect(Math.abs(cents - published[i]!)).toBeLessThan(0.011));
  });

  it('keep A on the standard whatever the tonic, and the tonic’s fifth pure where it is', () => {
    for (const { id } of temperaments)
      for (let tonic = 0; tonic < 12; tonic++)
        expect(targetHertz(69, { a4: 442, temperament: id, tonic })).toBeCloseTo(442, 9);
    const tuning = { a4: 440, temperament: 'just' as const, tonic: 2 };
    expect(targetHertz(69, tuning) / targetHertz(62, tuning)).toBeCloseTo(3 / 2, 9);
    expect(targetHertz(66, tuning) / targetHertz(62, tuning)).toBeCloseTo(5 / 4, 9);
  });

  it('leave equal temperament where it is, quarter-tones too', () => {
    expect(temperedOffset(61, { temperament: 'equal', tonic: 5 })).toBe(0);
    expect(targetHertz(64.5, { a4: 440, temperament: 'equal', tonic: 0 })).toBeCloseTo(midiToHertz(64.5), 9);
  });
});

describe('names in three conventions', () => {
  it.each([
    ['B4', 'B4', 'H4', 'si4'],
    ['Bb4', 'B♭4', 'B4', 'si♭4'],
    ['F#5', 'F♯5', 'Fis5', 'fa♯5'],
    ['Eb3', 'E♭3', 'Es3', 'mi♭3'],
  ])('%s', (name, english, german, fixedDo) => {
    const midi = noteNumber(name);
    expect([
      displayName(midi, 'english'),
      displayName(midi, 'german'),
      displayName(midi, 'fixed-do'),
    ]).toEqual([english, german, fixedDo]);
  });

  it('have quarter-tones', () => {
    expect(displayName(62.5, 'english')).toBe('D½♯4');
    expect(displayName(63.5, 'english')).toBe('E½♭4');
    expect(spokenName(63.5)).toBe('E half flat 4');
  });
});

describe('spelling', () => {
  it('follows the key', () => {
    const named = (midi: number, fifths: number) => {
      const { step, alter, octave } = spell(midi, fifths);
      return `${step}${alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter)}${octave}`;
    };
    expect([61, 63, 66, 68, 70].map((midi) => named(midi, 0))).toEqual(['C#4', 'Eb4', 'F#4', 'G#4', 'Bb4']);
    expect([61, 63, 66, 68, 70].map((midi) => named(midi, -4))).toEqual(['Db4', 'Eb4', 'Gb4', 'Ab4', 'Bb4']);
    expect(named(65, 6)).toBe('E#4');
    expect(named(71, -6)).toBe('Cb5');
  });

  it('always means the same note', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 220 }), fc.integer({ min: -7, max: 7 }), (halves, fifths) => {
        expect(spelledMidi(spell(halves / 2, fifths))).toBe(halves / 2);
      }),
    );
  });
});
