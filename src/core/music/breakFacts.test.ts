import { attacks, labels, names, scoreOfFamily as made } from './scores.testing';
import { noteName, noteNumber as n } from '@/core/tuning';
import { hairpinsOf, slursOf } from '.';

describe('across the break', () => {
  it.each([
    ['LHL', 'C4 C5 C4'],
    ['HLH', 'C5 C4 C5'],
    ['LH', 'C4 C5 C4 C5 C4 C5'],
    ['LHHL', 'C4 C5 C5 C4'],
    ['HLLH', 'C5 C4 C4 C5'],
  ])('octave slurs %s tongue the first note only', (pattern, row) => {
    const slurs = made('octave-slurs', 'flute', { pattern, range: { low: n('C4'), high: n('C4') } });
    expect(names(slurs)).toBe(row);
    expect(slurs.notes.map((note) => note.attack === 'tongued')).toEqual(slurs.notes.map((_, i) => i === 0));
  });

  it('a falling chain goes down in one slur', () => {
    const chain = made('octave-slurs', 'flute', {
      pattern: 'falling',
      range: { low: n('C4'), high: n('D4') },
    });
    expect(names(chain)).toBe('D5 D4 C#5 C#4 C5 C4');
    expect(slursOf(chain.notes)).toEqual([{ from: 0, to: 5 }]);
  });

  it('a climb checks, climbs softer, and comes back', () => {
    const climb = made('harmonic-climb', 'flute', {
      range: { low: n('C4'), high: n('C4') },
      modes: 3,
      check: true,
      softer: true,
      back: true,
    });
    expect(climb.notes.map((note) => `${noteName(note.written)} ${note.dynamic}`)).toEqual([
      'C5 f',
      'G5 f',
      'C4 f',
      'C5 mf',
      'C4 mf',
      'G5 mp',
      'C4 mp',
    ]);
    expect(climb.notes.filter((note) => note.fingered === n('C4')).map((note) => note.mode)).toEqual([2, 3]);
  });

  it('anchored intervals go down as well, to two octaves', () => {
    const down = made('anchored-intervals', 'oboe', {
      anchor: n('C6'),
      direction: 'down',
      widest: 24,
      chromatic: true,
    });
    expect(noteName(down.notes.at(-2)!.written)).toBe('C4');
    expect(down.notes).toHaveLength(3 * 24);
  });

  it('altissimo pairs rise from the last comfortable note in a dose that ends', () => {
    const pairs = made('altissimo-pairs', 'clarinet-bb', { from: n('C6'), above: 3, times: 1 });
    expect(names(pairs)).toBe('C6 C#6 C6 C6 D6 C6 C6 Eb6 C6');
    expect(pairs.longestSeconds).toBe(300);
  });

  it('the eight ways are eight, with their attacks and hairpins', () => {
    const all = made('eight-ways', 'oboe', { from: n('G4'), notes: 4 });
    expect(labels(all)).toHaveLength(8);
    expect(attacks(all)).toEqual(new Set(['tongued', 'back-of-tongue', 'breath', 'none']));
    expect(hairpinsOf(all.notes).map(({ hairpin, from, to }) => `${hairpin} ${to - from + 1}`)).toEqual([
      'fade 4',
      'grow 4',
    ]);
    const triplets = made('eight-ways', 'oboe', { from: n('G4'), notes: 4, way: 'triplets' });
    expect(triplets.notes.every((note) => Math.abs(note.beats - 1 / 3) < 1e-9)).toBe(true);
    expect(triplets.notes.length % 3).toBe(0);
  });

  it('low chromatics reach the bottom, by every attack', () => {
    for (const [attack, how] of [
      ['tongued', 'tongued'],
      ['breath', 'breath'],
      ['strong', 'tongued'],
    ] as const) {
      const low = made('low-chromatics', 'bassoon', { attack });
      expect(Math.min(...low.notes.map((note) => note.written))).toBe(n('Bb1'));
      expect(attacks(low)).toEqual(new Set([how]));
    }
    expect(made('low-chromatics', 'bassoon', { attack: 'strong' }).notes[0]?.dynamic).toBe('f');
  });

  it('the register test is the clarinet’s written G sharp, fading', () => {
    const test = made('register-test', 'clarinet-bb');
    expect(noteName(test.notes[0]!.written)).toBe('G#5');
    expect(test.notes.every((note) => note.hairpin === 'fade' && note.dynamic === 'f')).toBe(true);
  });
});
