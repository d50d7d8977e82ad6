import { midiToHertz, noteName, noteNumber } from '@/core/tuning';
import { findInstrument, instruments, modeOf, registerOf, seamsOf, listeningRange, writtenRange } from '.';

const IDS =
  'flute piccolo alto-flute recorder-sopranino recorder-soprano recorder-alto recorder-tenor recorder-bass oboe cor-anglais bassoon contrabassoon clarinet-eb clarinet-bb clarinet-a clarinet-alto clarinet-bass sax-soprano sax-alto sax-tenor sax-baritone whistle-d ney-d';

const named = (id: string) => {
  const found = findInstrument(id);
  if (!found) throw new Error(id);
  return found;
};

describe('the catalogue', () => {
  it('has every instrument once', () => {
    expect(instruments.map((each) => each.id).sort()).toEqual(IDS.split(' ').sort());
  });

  it.each(instruments.map((each) => [each.id, each] as const))(
    '%s has registers without holes, rising modes its tube has, and a home in range',
    (_, each) => {
      const { low, high } = writtenRange(each);
      expect(each.home).toBeGreaterThanOrEqual(low);
      expect(each.home).toBeLessThanOrEqual(high);
      each.registers
        .slice(1)
        .forEach((register, i) => expect(register.low).toBe(each.registers[i]!.high + 1));
      let mode = 1;
      for (let note = low; note <= high; note++) {
        expect(modeOf(each, note)).toBeGreaterThanOrEqual(mode);
        mode = modeOf(each, note);
        if (each.series === 'odd') expect(mode % 2).toBe(1);
      }
    },
  );

  it('knows where things break', () => {
    const seams = (id: string) =>
      seamsOf(named(id)).map(({ below, above }) => `${noteName(below)}-${noteName(above)}`);
    expect(seams('flute')).toEqual(['Eb5-E5', 'C#6-D6']);
    expect(seams('clarinet-bb')).toEqual(['F#4-G4', 'Bb4-B4', 'C6-C#6']);
    expect(seams('oboe')).toEqual(['C5-C#5', 'Eb5-E5', 'G#5-A5', 'C6-C#6']);
    expect(registerOf(named('bassoon'), noteNumber('C4')).id).toBe('overblown');
    expect(modeOf(named('clarinet-bb'), noteNumber('B4'))).toBe(3);
  });

  it('transposes', () => {
    expect(listeningRange(named('contrabassoon')).lowestHz).toBeCloseTo(29.1, 1);
    expect(listeningRange(named('clarinet-bb')).lowestHz).toBeCloseTo(midiToHertz(noteNumber('D3')), 6);
    expect(listeningRange(named('piccolo')).highestHz).toBeCloseTo(midiToHertz(noteNumber('C8')), 6);
  });
});
