import fc from 'fast-check';
import { centsBetween, displayName, hertzToMidi, midiToHertz, noteName, noteNumber, spokenName } from '.';

describe('pitch', () => {
  it('puts A4 on the standard and an octave at twice the frequency', () => {
    expect(midiToHertz(69, 442)).toBe(442);
    expect(midiToHertz(81, 415)).toBeCloseTo(830, 9);
    expect(midiToHertz(60)).toBeCloseTo(261.6256, 4);
    expect(centsBetween(880, 440)).toBe(1200);
    expect(hertzToMidi(-1)).toBeNaN();
  });

  it('goes there and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 120, noNaN: true }),
        fc.integer({ min: 392, max: 466 }),
        (midi, a4) => {
          expect(hertzToMidi(midiToHertz(midi, a4), a4)).toBeCloseTo(midi, 9);
        },
      ),
    );
  });
});

describe('note names', () => {
  it('read and write', () => {
    expect(noteNumber('C4')).toBe(60);
    expect(noteNumber('Bb1')).toBe(34);
    expect(noteNumber('C-1')).toBe(0);
    expect(noteName(61)).toBe('C#4');
    expect(noteName(63)).toBe('Eb4');
    expect(displayName(70, 'english')).toBe('B♭4');
    expect(spokenName(73)).toBe('C sharp 5');
    expect(spokenName(69)).toBe('A 4');
  });

  it('name every note so that it is found again', () => {
    for (let midi = 0; midi < 128; midi++) expect(noteNumber(noteName(midi))).toBe(midi);
  });

  it.each(['H4', 'C', '4', 'Cx4', ''])('refuse "%s"', (name) => {
    expect(() => noteNumber(name)).toThrow(/not a note name/);
  });
});
