import * as fc from 'fast-check';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Transition } from '@/core/hearing/notes';
import { LEVELS, limitsOf, type FaultKind, type LimitId } from '.';
import { judgedAsWritten, kindsOf, sentenceOf, type Otherwise } from './asWritten.testing';

const octaves = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 }, tempo: 60 });
/** Octave slurs of the flute over the break: E4–E5, F4–F5, F♯4–F♯5, up and down. */
const slurred = (otherwise: Otherwise = {}, level: (typeof LEVELS)[number] = 'steady') =>
  judgedAsWritten(octaves, otherwise, limitsOf(level));
/** Something of the first slur alone. */
const first = (part: Partial<Transition>): Otherwise => ({ slur: (to) => (to.index === 1 ? part : {}) });

test('slurs that were as they should be are clean, whatever the level of the player', () => {
  for (const level of LEVELS) {
    const { seams, headline, faults } = slurred({}, level);
    expect(seams.every((seam) => seam.clean)).toBe(true);
    expect(headline).toBe(`All ${seams.length} slurs clean`);
    expect(faults).toEqual([]);
  }
});

describe('each limit of a slur', () => {
  it.each<[LimitId, (value: number) => Partial<Transition>, FaultKind, RegExp]>([
    ['seamDipDb', (dipDb) => ({ dipDb }), 'hole', /fell by .* dB/],
    ['seamBumpDb', (bumpDb) => ({ bumpDb }), 'bump', /push of .* dB/],
    ['seamSeconds', (seconds) => ({ seconds }), 'slow-slur', /took \d+ ms/],
    ['overshootCents', (overshootCents) => ({ overshootCents }), 'slow-slur', /cents too far/],
    ['levelStepDb', (levelStepDb) => ({ levelStepDb }), 'bump', /dB louder/],
    ['levelStepDb', (step) => ({ levelStepDb: -step }), 'narrow-leap', /dB softer/],
  ])('%s divides clean from failed, exactly', (id, part, kind, words) => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LEVELS),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (level, share) => {
          fc.pre(Math.abs(share - 1) > 1e-6);
          const { seams, faults } = slurred(first(part(share * limitsOf(level)[id])), level);
          expect(seams[0]!.clean).toBe(share < 1);
          expect(seams.slice(1).every((seam) => seam.clean)).toBe(true);
          if (share < 1) return;
          expect(seams[0]!.why[0]).toMatchObject({ kind });
          expect(seams[0]!.why[0]!.text).toMatch(words);
          expect(faults[0]).toMatchObject({ kind, group: 1, atSlur: true });
          expect(faults[0]!.size).toBeCloseTo(share, 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('level is no fault where a change of level was asked for', () => {
    const quiet = {
      ...octaves,
      notes: octaves.notes.map((note, i) => (i === 1 ? { ...note, dynamic: 'pp' as const } : note)),
    };
    const step = { slur: () => ({ levelStepDb: -12 }) };
    const { seams } = judgedAsWritten(quiet, step);
    expect(seams[0]!.clean).toBe(true);
    expect(seams.slice(2).every((seam) => !seam.clean)).toBe(true);
  });
});

describe('intervals', () => {
  it('are wide or narrow by where the two notes lay, upwards and downwards', () => {
    fc.assert(
      fc.property(fc.integer({ min: -60, max: 60 }), (error) => {
        const { seams } = slurred({ note: ({ written }) => ({ centreCents: written > 70 ? error : 0 }) });
        for (const seam of seams) expect(seam.errorCents).toBeCloseTo(error, 9);
        const beyond = Math.abs(error) > limitsOf('steady').intervalCents;
        expect(seams[0]!.why.map(({ kind }) => kind)).toEqual(
          beyond ? [error > 0 ? 'wide-interval' : 'narrow-interval'] : [],
        );
      }),
    );
  });

  it('are not told where a note was not heard or was another', () => {
    const { seams } = slurred({
      note: ({ index, sounding }) => (index === 1 ? { soundingMidi: sounding - 1 } : {}),
    });
    expect(seams[0]).toMatchObject({ clean: false, errorCents: null });
    expect(seams[0]!.why[0]!.text).toMatch(/another note/);
  });
});

describe('what sounds on the way', () => {
  it.each([
    ['blip', 88, 'break-up', 'a higher mode first'],
    ['blip', 64, 'break-down', 'a lower mode first'],
    ['break', 88, 'break-up', 'it broke upwards'],
    ['break', 64, 'break-down', 'it broke downwards'],
    ['squeak', 100, 'squeak', 'a squeak'],
    ['gap', 76, 'hole', 'a hole of 60 ms'],
  ] as const)('a %s at %i fails the slur', (kind, midi, fault, text) => {
    const { seams, faults } = slurred({ events: [{ group: 1, kind, after: 0.02, midi }] });
    expect(seams[0]!.why[0]).toMatchObject({ kind: fault, text });
    // Told once, by the slur.
    expect(faults.filter(({ kind: each }) => each === fault)).toHaveLength(1);
  });

  it('a break in the middle of the note is the note’s, not the slur’s', () => {
    const { seams, faults } = slurred({ events: [{ group: 1, kind: 'break', after: 0.6, midi: 88 }] });
    expect(seams[0]!.clean).toBe(true);
    expect(faults[0]).toMatchObject({ kind: 'break-up', group: 1, atSlur: false });
  });

  it('of one thing seen in two ways the worse is said', () => {
    const { seams } = slurred({ ...first({ dipDb: 30 }), events: [{ group: 1, kind: 'gap', after: 0.01 }] });
    expect(seams[0]!.why.filter(({ kind }) => kind === 'hole')).toHaveLength(1);
  });
});

describe('of all slurs together', () => {
  it('the worst is named with its reasons, and the share that was clean', () => {
    const judged = slurred({ slur: ({ index }) => ({ dipDb: index === 4 ? 20 : index === 1 ? 8 : 1 }) });
    expect(judged.headline).toMatch(/^(\d+) of \d+ slurs clean$/);
    expect(sentenceOf(judged, 'slurs')).toBe('The worst: F4 to F5, the level fell by 20 dB between them.');
  });

  it('a note that did not sound fails its slur, and one that was not there before says nothing', () => {
    const { seams, faults } = slurred({ note: ({ index }) => (index === 1 ? null : {}) });
    expect(seams[0]).toMatchObject({ clean: false, transition: null });
    expect(seams[0]!.why[0]!.text).toBe('E5 did not sound');
    expect(seams[1]!.clean).toBeNull();
    expect(kindsOf({ faults })).toContain('missed');
  });

  it('those over a break are counted by themselves where there are others too', () => {
    const low = scoreOfFamily('low-chromatics', 'clarinet-bb', { joined: true });
    const judged = judgedAsWritten(low);
    expect(judged.findings.find(({ id }) => id === 'crossings')).toBeUndefined();
    const groups = scoreOfFamily('anchored-intervals', 'clarinet-bb');
    const mixed = judgedAsWritten(groups);
    const crossing = mixed.seams.filter((seam) => seam.crosses);
    expect(crossing.length).toBeGreaterThan(0);
    expect(crossing.length).toBeLessThan(mixed.seams.length);
    expect(sentenceOf(mixed, 'crossings')).toMatch(/all clean/);
  });
});
