import * as fc from 'fast-check';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Transition } from '@/core/hearing/notes';
import { LEVELS } from '@/core/music';
import { amountText, judge, limitsOf, type FaultKind, type LimitId } from '.';
import { asWritten, judgedAsWritten, kindsOf, said, sentenceOf, type Otherwise } from './asWritten.testing';

const octaves = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 }, tempo: 60 });
/** Octave slurs of the flute over the break: E4–E5, F4–F5, F♯4–F♯5, up and down. */
const slurred = (otherwise: Otherwise = {}, level: (typeof LEVELS)[number] = 'steady') =>
  judgedAsWritten(octaves, otherwise, limitsOf(level));
/** Something of the first slur alone. */
const first = (part: Partial<Transition>): Otherwise => ({ slur: (to) => (to.index === 1 ? part : {}) });

test('slurs that were as they should be are clean, whatever the level of the player', () => {
  for (const level of LEVELS) {
    const judged = slurred({}, level);
    const { seams, faults } = judged;
    expect(seams.every((seam) => seam.clean)).toBe(true);
    expect(said(judged).headline).toBe(`All ${seams.length} slurs clean`);
    expect(faults).toEqual([]);
  }
});

describe('each limit of a slur', () => {
  it.each<[LimitId, (value: number) => Partial<Transition>, FaultKind, RegExp]>([
    ['seamDipDb', (dipDb) => ({ dipDb }), 'hole', /dB$/],
    ['seamBumpDb', (bumpDb) => ({ bumpDb }), 'bump', /dB$/],
    ['seamMs', (ms) => ({ seconds: ms / 1000 }), 'slow-slur', /^\d+ ms$/],
    ['overshootCents', (overshootCents) => ({ overshootCents }), 'overshoot', /cents?$/],
    ['levelStepDb', (levelStepDb) => ({ levelStepDb }), 'bump', /dB$/],
    ['levelStepDb', (step) => ({ levelStepDb: -step }), 'narrow-leap', /dB$/],
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
          expect(amountText(seams[0]!.why[0]!.amount!)).toMatch(words);
          expect(seams[0]!.why[0]!.amount).toMatchObject({ limit: limitsOf(level)[id] });
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
        // The notes themselves may lie anywhere: only what is between them is looked at.
        const { seams } = judgedAsWritten(
          octaves,
          { note: ({ written }) => ({ centreCents: written > 70 ? error / 2 : -error / 2 }) },
          limitsOf('steady', { centreCents: 40 }),
        );
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
    expect(seams[0]!.why[0]!.kind).toBe('wrong-note');
  });
});

describe('what sounds on the way', () => {
  it('faint, is a crack and no hole where the two were to be slurred, and nothing where the tongue began', () => {
    const faintBlip = {
      kind: 'blip',
      startSeconds: 2,
      endSeconds: 2.04,
      soundingMidi: 88,
      noteIndex: 1,
      confidence: 0.7,
    } as const;
    const take = asWritten(octaves, first({ faintBlip, dipDb: 20 }));
    expect(judge(take, limitsOf('steady')).faults).toMatchObject([{ kind: 'break-up', group: 1 }]);
    const notes = octaves.notes.map((note) => ({ ...note, attack: 'tongued' as const }));
    expect(judge({ ...take, score: { ...octaves, notes } }, limitsOf('steady')).faults).toEqual([]);
  });

  it.each([
    ['blip', 88, 'break-up'],
    ['blip', 64, 'break-down'],
    ['break', 88, 'break-up'],
    ['break', 64, 'break-down'],
    ['squeak', 100, 'squeak'],
    ['gap', 76, 'hole'],
  ] as const)('a %s at %i fails the slur', (kind, midi, fault) => {
    const { seams, faults } = slurred({ events: [{ group: 1, kind, after: 0.02, midi }] });
    expect(seams[0]!.why[0]).toMatchObject({ kind: fault });
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
    expect(said(judged).headline).toBe('Holes in 2 slurs: E4 to E5 and F4 to F5');
    expect(said(judged).findings.find(({ id }) => id === 'slurs-clean')).toMatchObject({ value: '4 of 6' });
    expect(sentenceOf(judged, 'slurs-clean')).toBe('The worst: F4 to F5.');
  });

  it('a note that did not sound fails its slur, and one that was not there before says nothing', () => {
    const { seams, faults } = slurred({ note: ({ index }) => (index === 1 ? null : {}) });
    expect(seams[0]).toMatchObject({ clean: false, transition: null, why: [{ kind: 'missed' }] });
    expect(seams[1]!.clean).toBeNull();
    expect(kindsOf({ faults })).toContain('missed');
  });

  it('those over a break are counted by themselves where there are others too', () => {
    const low = scoreOfFamily('low-chromatics', 'clarinet-bb', { joined: true });
    const judged = judgedAsWritten(low);
    expect(sentenceOf(judged, 'crossings-clean')).toBe('');
    const groups = scoreOfFamily('anchored-intervals', 'clarinet-bb');
    const mixed = judgedAsWritten(groups);
    const crossing = mixed.seams.filter((seam) => seam.crosses);
    expect(crossing.length).toBeGreaterThan(0);
    expect(crossing.length).toBeLessThan(mixed.seams.length);
    expect(sentenceOf(mixed, 'crossings-clean')).toMatch(/all clean/);
  });
});
