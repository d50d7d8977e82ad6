import * as fc from 'fast-check';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { judge, limitsOf, type Drawing, type Judgement } from '.';
import { asWritten, judgedAsWritten, kindsOf, sentenceOf, valueOf } from './asWritten.testing';

function drawingOf<K extends Drawing['kind']>({ drawings }: Judgement, kind: K) {
  const found = drawings.find((each) => each.kind === kind);
  if (!found) throw new Error(`no drawing of ${kind}`);
  return found as Extract<Drawing, { kind: K }>;
}

describe('what happened', () => {
  const scale = scoreOfFamily('low-chromatics', 'flute', { tempo: 60, joined: false });

  it('is counted by kind, with its places, and is the headline', () => {
    const judged = judgedAsWritten(scale, {
      events: [
        { group: 1, kind: 'break', after: 0.5, midi: 90 },
        { group: 3, kind: 'break', after: 0.5, midi: 90 },
        { group: 4, kind: 'undertone', after: 0.3 },
      ],
    });
    expect(judged.headline).toBe('Broke up 2 times, 1 other thing');
    expect(valueOf(judged, 'events')).toBe(3);
    expect(sentenceOf(judged, 'events')).toMatch(/^Broke up 2 times \(.+ and .+\); undertone \(.+\)\.$/);
    expect(kindsOf(judged)).toEqual(expect.arrayContaining(['break-up', 'undertone']));
    expect(judged.notes[1]!.marks.map(({ word }) => word)).toEqual(['broke up']);
  });

  it('one thing alone is named with its note', () => {
    const { headline, notes } = judgedAsWritten(scale, {
      events: [{ group: 2, kind: 'squeak', after: 0.4 }],
    });
    expect(headline).toBe(`${notes[2]!.name}: squeak`);
  });

  it('most of it not heard comes before everything else', () => {
    const judged = judgedAsWritten(scale, { note: ({ index }) => (index < 2 ? { centreCents: 30 } : null) });
    expect(judged.headline).toMatch(/^2 of \d+ notes heard$/);
    expect(sentenceOf(judged, 'notes')).toMatch(/notes not heard/);
    expect(judged.notes[4]).toMatchObject({ word: 'not heard', manner: '', cents: null });
  });

  it('a score tells which events are none of its business', () => {
    const deaf = { ...scale, counts: { ...scale.counts, events: [] } };
    const judged = judgedAsWritten(deaf, { events: [{ group: 2, kind: 'squeak', after: 0.4 }] });
    expect(judged.faults).toEqual([]);
    expect(judged.notes[2]!.marks).toEqual([]);
  });
});

describe('a climb', () => {
  const climb = scoreOfFamily('harmonic-climb', 'flute', {
    range: { low: 60, high: 61 },
    modes: 4,
    tempo: 60,
  });
  const isMode = (from: number) => climb.notes[from]!.fingered !== null;

  it('tells each mode against its multiple of the fundamental as it was sounded', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -30, max: 30 }), (base, over) => {
        const judged = judgedAsWritten(climb, {
          note: ({ from }) => ({ centreCents: isMode(from) ? base + over : base }),
        });
        for (const { mode, cents, reached } of drawingOf(judged, 'climb').rows.flatMap((row) => row.modes)) {
          // Written, a mode stands on the nearest semitone: the true multiple lies beside it.
          const beside = 100 * (12 * Math.log2(mode) - Math.round(12 * Math.log2(mode)));
          expect(reached).toBe(true);
          expect(cents).toBeCloseTo(over - beside, 0);
        }
      }),
      { numRuns: 20 },
    );
  });

  it('says which were not reached, and those that went too far', () => {
    const highest = Math.max(...climb.notes.map((note) => note.mode ?? 0));
    const judged = judgedAsWritten(climb, {
      note: ({ from, sounding }) =>
        climb.notes[from]!.mode === highest ? { soundingMidi: sounding + 5 } : {},
    });
    expect(sentenceOf(judged, 'modes')).toMatch(new RegExp(`^Not reached: ${highest} of .*went too far`));
    expect(judged.headline).toMatch(/^\d+ of \d+ modes reached$/);
  });
});

describe('octaves', () => {
  it('are as wide as they were, and the worst is named', () => {
    const check = scoreOfFamily('octave-check', 'oboe', { tempo: 60 });
    const judged = judgedAsWritten(check, {
      note: ({ index, written }) => ({ centreCents: index === 3 ? 26 : written > 70 ? 4 : 0 }),
    });
    const { notes } = drawingOf(judged, 'intervals');
    expect(Math.max(...notes.map(({ cents }) => cents))).toBeCloseTo(26, 1);
    expect(sentenceOf(judged, 'octaves')).toMatch(/26 cents wide/);
    expect(kindsOf(judged)).toContain('wide-interval');
  });
});

describe('the anchor', () => {
  const intervals = scoreOfFamily('anchored-intervals', 'flute', { tempo: 60 });
  const anchor = intervals.notes[0]!.written;

  it('held is held', () => {
    const judged = judgedAsWritten(intervals);
    expect(sentenceOf(judged, 'anchor')).toMatch(/was the same note every time/);
    expect(kindsOf(judged)).not.toContain('anchor-moved');
  });

  it('that moved is told with where it was come from', () => {
    let returns = 0;
    const judged = judgedAsWritten(intervals, {
      note: ({ written, slurred }) => {
        if (written === anchor && slurred) returns++;
        return { centreCents: written === anchor && slurred && returns === 3 ? -22 : 0 };
      },
    });
    expect(judged.faults.filter(({ kind }) => kind === 'anchor-moved')).toHaveLength(1);
    expect(sentenceOf(judged, 'anchor')).toMatch(/^Coming from .+, .+ was 22 low against its first\.$/);
    const moved = drawingOf(judged, 'anchor').returns.filter(({ cents }) => Math.abs(cents ?? 0) > 10);
    expect(moved).toMatchObject([{ cents: -22 }]);
  });
});

describe('eight ways', () => {
  const ways = scoreOfFamily('eight-ways', 'flute', { tempo: 72 });
  const wayAt = (from: number) => ways.notes.slice(0, from + 1).findLast((note) => note.label)?.label;

  it('the two tongues are to be alike, and the breath to be the same tone', () => {
    const alike = judgedAsWritten(ways);
    expect(sentenceOf(alike, 'two-tongues')).toBe('Not to be told apart.');
    expect(sentenceOf(alike, 'breath-body')).toMatch(/same tone/);
    const apart = judgedAsWritten(ways, {
      note: ({ from }) =>
        wayAt(from) === 'back of the tongue only'
          ? { attack: { riseSeconds: 0.09, scoopCents: 0, speechSeconds: 0 } }
          : wayAt(from) === 'breath only'
            ? { brightness: 5, richness: 2 }
            : {},
    });
    expect(valueOf(apart, 'two-tongues')).toBe(60);
    expect(sentenceOf(apart, 'two-tongues')).toMatch(/can be told apart/);
    expect(sentenceOf(apart, 'breath-body')).toMatch(/Another tone/);
    expect(drawingOf(apart, 'ways').ways).toHaveLength(8);
  });
});

describe('holds', () => {
  const holds = scoreOfFamily('long-hold', 'bassoon', { tempo: 60 });

  it('are as long as they were pure, the best and all of them', () => {
    const judged = judgedAsWritten(holds, {
      note: ({ from, index }) => ({
        puritySeconds: holds.notes[from]!.label === 'hold' ? 3 + index / 10 : 0.5,
      }),
    });
    const pure = drawingOf(judged, 'holds').holds.map((hold) => hold.pure ?? 0);
    expect(valueOf(judged, 'best-hold')).toBeCloseTo(Math.max(...pure), 1);
    expect(valueOf(judged, 'total-hold')).toBeCloseTo(
      pure.reduce((sum, each) => sum + each, 0),
      1,
    );
  });

  it('that broke off early are a fault, but where one explores', () => {
    const short = { note: () => ({ puritySeconds: 0.4 }) };
    expect(kindsOf(judgedAsWritten(holds, short))).toContain('fading-hold');
    expect(kindsOf(judgedAsWritten(scoreOfFamily('edge-hold', 'bassoon'), short))).toEqual([]);
  });
});

describe('the dynamic window', () => {
  const window = scoreOfFamily('dynamic-window', 'flute', { tempo: 60 });

  it('is told note by note, the narrowest named', () => {
    const judged = judgedAsWritten(window, {
      note: ({ from, index }) => ({
        levelDb: window.notes[from]!.label === 'softest' ? -40 : index < 2 ? -32 : -14,
      }),
    });
    expect(valueOf(judged, 'window')).toBe(26);
    expect(sentenceOf(judged, 'window')).toMatch(/^Narrowest: .+, 8 dB\.$/);
    expect(judged.faults.filter(({ kind }) => kind === 'narrow-window')).toHaveLength(1);
  });
});

describe('the register test', () => {
  const test = scoreOfFamily('register-test', 'clarinet-bb');

  it.each([
    [[], 'It held', null],
    [[{ group: 0, kind: 'undertone' as const, after: 2 }], 'A growl below', 'undertone'],
    [[{ group: 0, kind: 'squeak' as const, after: 2 }], 'A squeak above', 'squeak'],
  ])('%j means: %s', (events, headline, kind) => {
    const judged = judgedAsWritten(test, { events });
    expect(judged.headline).toBe(headline);
    const unstable = kindsOf(judged).filter((each) => each === 'undertone' || each === 'squeak');
    expect(unstable).toEqual(kind ? [kind] : []);
  });
});

describe('the room', () => {
  const check = scoreOfFamily('room-check', 'flute');

  it.each([
    [-70, 'A quiet room'],
    [-52, 'An ordinary room'],
    [-38, 'A loud room'],
  ])('of %i dB is %s', (floorDb, headline) => {
    expect(judgedAsWritten(check, { conditions: { floorDb } }).headline).toBe(headline);
  });

  it('tells what the microphone does by itself', () => {
    const judged = judgedAsWritten(check, {
      conditions: { processing: ['gain-control', 'noise-suppression'] },
    });
    const sentences = judged.findings.map(({ sentence }) => sentence).join(' ');
    expect(sentences).toMatch(/keeps gain control and noise suppression on/);
  });
});

describe('one held note', () => {
  it('is judged by the limits of the player, not by ours', () => {
    const held = heldNote('flute', { tempo: 60 });
    const nine = { note: () => ({ centreCents: 9 }) };
    expect(kindsOf(judgedAsWritten(held, nine, limitsOf('beginner')))).toEqual([]);
    expect(kindsOf(judgedAsWritten(held, nine, limitsOf('exacting')))).toContain('steadily-high');
    expect(kindsOf(judgedAsWritten(held, nine, limitsOf('exacting', { centreCents: 10 })))).toEqual([]);
  });
});

test('a take of an instrument that is not known here is told so, and breaks nothing', () => {
  const judged = judgedAsWritten(heldNote('flute'));
  expect(judged.headline).toBe('True and steady');
  const take = asWritten(heldNote('flute'));
  const foreign = judge(
    { ...take, score: { ...take.score, instrumentId: 'own-elsewhere' } },
    limitsOf('steady'),
  );
  expect(foreign.headline).toBe('The instrument is missing');
  expect(foreign.summary).toMatch(/own-elsewhere/);
});

test('exploring is never scolded for what it means to do', () => {
  for (const family of ['bends', 'edge-hold', 'pulses', 'colours', 'angle-sweep', 'breath-sweep']) {
    const score = scoreOfFamily(family, 'flute');
    const { faults, notes } = judgedAsWritten(score, {
      note: () => ({ centreCents: 35, wobbleCents: 20, levelDriftDbPerSecond: -4, airinessDb: -3 }),
      events: [{ group: 0, kind: 'break', after: 0.4, midi: 90 }],
    });
    expect(faults).toEqual([]);
    expect(notes.every(({ manner }) => manner === '')).toBe(true);
  }
});
