import * as fc from 'fast-check';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { LEVELS } from '@/core/music';
import { figuresAt, limitsOf, type FaultKind, type LimitId } from '.';
import { judgedAsWritten, kindsOf, said, sentenceOf, wholeValue as valueOf } from './asWritten.testing';

const scan = scoreOfFamily('tendency-scan', 'oboe', { tempo: 60 });
const loudScan = { ...scan, counts: { ...scan.counts, measures: ['level' as const] } };
const tune = scoreOfFamily('melody', 'flute', { tempo: 60 });

describe('where the notes sat', () => {
  it('is the middle note, and a lean of all is one fault of the whole', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30, max: 30 }), (lean) => {
        const judged = judgedAsWritten(tune, { note: () => ({ centreCents: lean }) });
        expect(valueOf(judged, 'pitch-middle')).toBe(lean);
        expect(valueOf(judged, 'pitch-spread')).toBe(0);
        const off = judged.faults.filter(({ kind }) => kind.startsWith('steadily'));
        if (Math.abs(lean) <= limitsOf('steady').centreCents) expect(off).toEqual([]);
        else expect(off).toMatchObject([{ kind: lean < 0 ? 'steadily-low' : 'steadily-high', group: null }]);
      }),
    );
  });

  it('one note out is that note’s fault, and named', () => {
    const judged = judgedAsWritten(tune, { note: ({ index }) => ({ centreCents: index === 3 ? 19 : 0 }) });
    expect(judged.faults).toMatchObject([{ kind: 'steadily-high', group: 3 }]);
    expect(judged.notes[3]!.cents).toBe(19);
    expect(said(judged).notes[3]!.word).toBe('19 cents high');
    expect(sentenceOf(judged, 'pitch-spread')).toMatch(/19 cents high/);
  });
});

describe('held still', () => {
  it.each<[LimitId, (value: number) => Partial<Note>, FaultKind]>([
    ['wobbleCents', (wobbleCents) => ({ wobbleCents }), 'unsteady'],
    ['driftCentsPerSecond', (drift) => ({ driftCentsPerSecond: -drift, wobbleCents: 0.1 }), 'sinking'],
    ['fadeDbPerSecond', (fade) => ({ levelDriftDbPerSecond: -fade }), 'fading-hold'],
  ])('%s divides steady from not', (id, part, kind) => {
    const held = scoreOfFamily('reference-travel', 'flute', { tempo: 60, joined: false });
    for (const level of LEVELS) {
      const limits = limitsOf(level);
      const by = (share: number) =>
        judgedAsWritten(held, { note: ({ index }) => (index === 2 ? part(share * limits[id]) : {}) }, limits);
      expect(kindsOf(by(0.99))).not.toContain(kind);
      expect(by(1.5).faults.find((fault) => fault.kind === kind)).toMatchObject({ group: 2 });
    }
  });

  it('a wobble that noise could make is neither blamed nor passed over in silence', () => {
    const held = scoreOfFamily('reference-travel', 'flute', { tempo: 60, joined: false });
    const limit = limitsOf('steady').wobbleCents;
    const noisy = (shaken: (index: number) => boolean, floorDb: number) =>
      judgedAsWritten(held, {
        note: ({ index }) => ({ wobbleCents: shaken(index) ? 1.3 * limit : 1 }),
        conditions: { floorDb },
      });
    const one = (index: number) => index === 2;
    expect(kindsOf(noisy(one, -70))).toContain('unsteady');
    expect(kindsOf(noisy(one, -32))).not.toContain('unsteady');
    expect(sentenceOf(noisy(one, -32), 'wobble')).toMatch(
      /^Held still.* Whether \S+ held still is not known/,
    );
    expect(
      sentenceOf(
        noisy(() => true, -32),
        'wobble',
      ),
    ).toMatch(/^Not known: there was too much noise/);
  });

  it('vibrato is a fault only where none was asked for', () => {
    const vibrato = { rateHz: 5.4, extentCents: 14 };
    const asked = (wish: string) =>
      judgedAsWritten(scoreOfFamily('reference-travel', 'flute', { tempo: 60, vibrato: wish }), {
        note: () => ({ vibrato }),
      });
    expect(kindsOf(asked('none'))).toContain('vibrato');
    for (const wish of ['free', 'wanted']) expect(kindsOf(asked(wish))).not.toContain('vibrato');
    expect(said(asked('free')).notes[0]!.manner).toBe('vibrato, 14 cents');
  });

  it.each([
    [{ wobbleCents: 9 }, 'unsteady, 9 cents'],
    [{ driftCentsPerSecond: -11 }, 'sinks 33 cents'],
    [{ levelDriftDbPerSecond: -3 }, 'fades 9 dB'],
    [{ levelDriftDbPerSecond: 2 }, 'grows 6 dB'],
    [{ levelDriftDbPerSecond: -0.2 }, 'steady'],
    [{ wobbleCents: null }, 'short'],
  ] as const)('a note with %j is said to be held so', (part, manner) => {
    const held = scoreOfFamily('reference-travel', 'flute', { tempo: 80, joined: false });
    const judged = judgedAsWritten(held, { note: () => ({ startSeconds: 1, endSeconds: 4, ...part }) });
    const first = judged.notes.findIndex(({ match }) => match.note !== null);
    expect(said(judged).notes[first]!.manner).toBe(manner);
  });
});

describe('loudness', () => {
  it('is even within each dynamic, not across them', () => {
    const level = (index: number) => -24 + 12 * Number(scan.notes[index]!.dynamic === 'f');
    const judged = judgedAsWritten(loudScan, { note: ({ from }) => ({ levelDb: level(from) }) });
    expect(valueOf(judged, 'level-spread')).toBe(0);
    expect(sentenceOf(judged, 'level-spread')).toMatch(/alike/);
    const uneven = judgedAsWritten(loudScan, { note: ({ index }) => ({ levelDb: -24 + 9 * (index % 2) }) });
    expect(valueOf(uneven, 'level-spread')).toBeGreaterThan(4);
  });

  it('is not known where the microphone changed it by itself, with the remedy', () => {
    const judged = judgedAsWritten(loudScan, {
      note: () => ({ levelDb: null, unknown: { levelDb: 'gain-control' } }),
    });
    const finding = said(judged).findings.find(({ id }) => id === 'level-spread');
    expect(finding).toMatchObject({ value: null });
    expect(finding?.sentence).toMatch(/switch it off/);
  });
});

test('air is named by its notes, and not held against the softest', () => {
  const airy = (dynamic: string) =>
    judgedAsWritten(scoreOfFamily('octave-slurs', 'oboe', { tempo: 60, dynamic }), {
      note: ({ index }) => ({ airinessDb: index === 1 ? -6 : -35 }),
    });
  expect(airy('mf').faults.find(({ kind }) => kind === 'airy')).toMatchObject({ group: 1 });
  expect(sentenceOf(airy('mf'), 'air')).toMatch(/^Much air beside /);
  expect(kindsOf(airy('pp'))).not.toContain('airy');
});

describe('sameness', () => {
  const travel = scoreOfFamily('reference-travel', 'flute', { tempo: 60, joined: false });

  it('is the distance in steps that are just noticed, and says in what', () => {
    const judged = judgedAsWritten(travel, {
      note: ({ index }) => (index === 3 ? { brightness: 4.4, richness: 3 } : {}),
    });
    const [far, ...alike] = figuresAt(judged.figures, 'unlike').sort((a, b) => b.value - a.value);
    expect(far!.value).toBeCloseTo(Math.sqrt(((2.4 / 0.35) ** 2 + (6 / 1.6) ** 2) / 5), 6);
    expect(alike.every(({ value }) => value === 0)).toBe(true);
    expect(sentenceOf(judged, 'sameness')).toMatch(/brighter/);
    expect(judged.faults[0]).toMatchObject({ kind: 'unlike', group: 3 });
  });

  it('a note that lost its partials is thin', () => {
    const judged = judgedAsWritten(travel, {
      note: ({ index }) => (index === 3 ? { richness: 0, brightness: 0.4 } : {}),
    });
    expect(kindsOf(judged)).toContain('thin');
  });
});
