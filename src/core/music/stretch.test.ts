import { findInstrument } from '@/core/instruments';
import * as fc from 'fast-check';
import { scoreOfFamily } from './scores.testing';
import { droneHertz, droneNotes, families, restFrom, scoreBeats } from '.';

const made = (family: string, instrumentId = 'flute', values = {}) =>
  scoreOfFamily(family, instrumentId, values);

describe('what is left of a score', () => {
  it('is all of it from the beginning', () => {
    const score = made('octave-slurs');
    expect(restFrom(score, 0)).toBe(score);
  });

  it('begins its first note anew, and keeps every note after the beat', () => {
    const score = made('octave-slurs');
    const rest = restFrom(score, 1);
    expect(score.notes[1]?.attack).toBe('none');
    expect(rest.notes[0]).toMatchObject({
      written: score.notes[1]?.written,
      startBeat: 0,
      attack: 'tongued',
    });
    expect(rest.notes).toHaveLength(score.notes.length - 1);
  });

  it('ends where the whole ends, for every family and every beat', () => {
    const scores = families.flatMap((family) => {
      const score = family.make(findInstrument('flute')!);
      return score.ok ? [score.value] : [];
    });
    fc.assert(
      fc.property(fc.constantFrom(...scores), fc.integer({ min: 0, max: 40 }), (score, beat) => {
        const rest = restFrom(score, beat);
        const after = [...score.notes, ...score.pictures].filter((each) => each.startBeat >= beat);
        expect(rest.notes.length + rest.pictures.length).toBe(after.length);
        if (after.length > 0) expect(scoreBeats(rest) + beat).toBeCloseTo(scoreBeats(score), 6);
        for (const note of rest.notes) expect(note.startBeat).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe('a drone', () => {
  it('is what the music asks for', () => {
    expect(droneNotes(made('section-chords', 'flute', { root: 69 }), findInstrument('flute')!)).toEqual([
      69, 73, 76,
    ]);
  });

  it('is pure over its root, whoever plays the root', () => {
    const [root, third, fifth] = droneHertz(
      made('section-chords', 'flute', { root: 69 }),
      findInstrument('flute')!,
      442,
    );
    expect([root, third, fifth].map((hertz) => Math.round(hertz! * 1000) / 1000)).toEqual([442, 552.5, 663]);
    // Without its root the chord stands where it would with it.
    const rest = droneHertz(
      made('section-chords', 'flute', { root: 69, part: '0' }),
      findInstrument('flute')!,
      442,
    );
    expect(rest.map((hertz) => Math.round(hertz * 1000) / 1000)).toEqual([552.5, 663]);
  });

  it('is otherwise the first note as it sounds, not high over everything', () => {
    expect(droneNotes(made('long-tone', 'flute', { note: 69 }), findInstrument('flute')!)).toEqual([57]);
    // Written C5 of the B flat clarinet sounds B flat 4.
    expect(
      droneNotes(made('long-tone', 'clarinet-bb', { note: 72 }), findInstrument('clarinet-bb')!),
    ).toEqual([58]);
    expect(droneNotes(made('long-tone', 'bassoon', { note: 41 }), findInstrument('bassoon')!)).toEqual([41]);
    expect(droneNotes(made('air-drills'), findInstrument('flute')!)).toEqual([]);
  });
});
