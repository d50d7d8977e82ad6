import * as fc from 'fast-check';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { figuresAt, judge, limitsOf, say } from '.';
import {
  asWritten,
  judgedAsWritten,
  kindsOf,
  said,
  sentenceOf,
  valueAt,
  wholeValue,
} from './asWritten.testing';

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
    expect(said(judged).headline).toMatch(/^2 notes cracked into a higher mode: .+ and .+$/);
    expect(wholeValue(judged, 'events')).toBe(3);
    expect(sentenceOf(judged, 'events')).toMatch(
      /^Cracked, a higher mode 2 times \(.+ and .+\); undertone \(.+\)\.$/,
    );
    expect(kindsOf(judged)).toEqual(expect.arrayContaining(['break-up', 'undertone']));
    expect(said(judged).notes[1]!.marks).toEqual(['cracked, a higher mode']);
  });

  it('a place that cracked again is named once, with how often', () => {
    const same = scoreOfFamily('subdivision-ladder', 'flute', { top: '4' });
    const judged = judgedAsWritten(same, {
      events: [1, 3].map((group) => ({ group, kind: 'break', after: 0.3, midi: 96 })),
    });
    expect(said(judged).headline).toMatch(/^2 notes cracked into a higher mode: \S+ twice$/);
  });

  it('one thing alone is named with its note', () => {
    const { headline, notes } = said(
      judgedAsWritten(scale, { events: [{ group: 2, kind: 'squeak', after: 0.4 }] }),
    );
    expect(headline).toBe(`A squeak in ${notes[2]!.name}`);
  });

  it('what was not reached because the player stopped was not played, and is no fault', () => {
    const judged = judgedAsWritten(scale, { note: ({ index }) => (index < 2 ? {} : null) });
    expect(judged.faults).toEqual([]);
    expect(said(judged).summary).toMatch(
      /^2 notes were played as written\. The last \d+ notes of \d+ were not played\./,
    );
    expect(said(judged).notes[4]).toMatchObject({ word: 'not played', manner: '' });
    expect(JSON.stringify(said(judged))).not.toMatch(/nearer/);
  });

  it('a note left out in the middle was missed', () => {
    const judged = judgedAsWritten(scale, { note: ({ index }) => (index === 2 ? null : {}) });
    expect(judged.faults).toMatchObject([{ kind: 'missed', group: 2 }]);
    expect(said(judged).notes[2]!.word).toBe('not heard');
  });

  it.each([
    [2, 'a tone higher', null],
    [-12, 'an octave lower', null],
  ])('the same music %i semitones away is told as that, and nothing is scolded', (by, words) => {
    const judged = judgedAsWritten(scale, { note: ({ sounding }) => ({ soundingMidi: sounding + by }) });
    expect(judged).toMatchObject({ outcome: 'another', faults: [], mistaken: { kind: 'transposed', by } });
    expect(said(judged).headline).toBe(`All ${words}`);
  });

  it('a clarinet in A played from a part for the one in B flat is recognised', () => {
    const part = scoreOfFamily('melody', 'clarinet-bb');
    const judged = judgedAsWritten(part, { note: ({ sounding }) => ({ soundingMidi: sounding - 1 }) });
    expect(judged.mistaken).toMatchObject({ by: -1, instrument: { id: 'clarinet-a' } });
    expect(said(judged).summary).toMatch(/Is it the A clarinet\?/);
  });

  it('something else altogether is told as that, with what was heard', () => {
    const judged = judgedAsWritten(scoreOfFamily('melody', 'flute'), {
      note: ({ index }) => ({ soundingMidi: 60 + ((index * index * 7) % 25) }),
    });
    expect(judged.mistaken).toMatchObject({ kind: 'other' });
    expect(said(judged).summary).toMatch(/^\d+ sounds were heard/);
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
        for (const { from, index } of judged.matches
          .map(({ group }) => group)
          .filter(({ from: at }) => isMode(at))) {
          const mode = climb.notes[from]!.mode!;
          // Written, a mode stands on the nearest semitone: the true multiple lies beside it.
          const beside = 100 * (12 * Math.log2(mode) - Math.round(12 * Math.log2(mode)));
          expect(valueAt(judged, 'mode', index)).toBe(mode);
          expect(valueAt(judged, 'mode-off', index)).toBeCloseTo(over - beside, 0);
        }
      }),
      { numRuns: 20 },
    );
  });

  it('says which were not reached', () => {
    const highest = Math.max(...climb.notes.map((note) => note.mode ?? 0));
    const judged = judgedAsWritten(climb, {
      note: ({ from, sounding }) =>
        climb.notes[from]!.mode === highest ? { soundingMidi: sounding + 5 } : {},
    });
    expect(sentenceOf(judged, 'modes-reached')).toMatch(/^Not reached: C6 and C♯6\.$/);
    expect(said(judged).headline).toBe('2 modes were not reached: C6 and C♯6');
    expect(kindsOf(judged)).toEqual(['mode-missed']);
  });
});

describe('octaves', () => {
  it('are as wide as they were, and the worst is named', () => {
    const check = scoreOfFamily('octave-check', 'oboe', { tempo: 60 });
    const judged = judgedAsWritten(check, {
      note: ({ index, written }) => ({ centreCents: index === 3 ? 26 : written > 70 ? 4 : 0 }),
    });
    expect(Math.max(...figuresAt(judged.figures, 'octave').map(({ value }) => value))).toBeCloseTo(26, 1);
    expect(sentenceOf(judged, 'octaves')).toMatch(/26 cents wide/);
    // One note that is high makes its octave wide: it is blamed once.
    expect(kindsOf(judged)).toEqual(['steadily-high']);
  });
});

describe('the anchor', () => {
  const intervals = scoreOfFamily('anchored-intervals', 'flute', { tempo: 60 });
  const anchor = intervals.notes[0]!.written;

  it('held is held', () => {
    const judged = judgedAsWritten(intervals);
    expect(sentenceOf(judged, 'anchor-cents')).toMatch(/was the same note at each of \d+ returns/);
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
    expect(sentenceOf(judged, 'anchor-cents')).toMatch(
      /^Coming from .+, .+ was 22 cents low against its first; 1 of \d+ returns had moved\.$/,
    );
    const moved = figuresAt(judged.figures, 'anchor-cents').filter(({ value }) => Math.abs(value) > 10);
    expect(moved).toMatchObject([{ value: -22 }]);
  });
});

describe('eight ways', () => {
  const ways = scoreOfFamily('eight-ways', 'flute', { tempo: 72 });
  const wayAt = (from: number) => ways.notes[from]!.role;

  it('the two tongues are to be alike, and the breath to be the same tone', () => {
    const alike = judgedAsWritten(ways);
    expect(sentenceOf(alike, 'two-tongues')).toBe('Not to be told apart.');
    expect(sentenceOf(alike, 'breath-body')).toMatch(/same tone/);
    const apart = judgedAsWritten(ways, {
      note: ({ from }) =>
        wayAt(from) === 'back-of-tongue'
          ? { attack: { riseSeconds: 0.09, scoopCents: 0, speechSeconds: 0 } }
          : wayAt(from) === 'breath-only'
            ? { brightness: 5, richness: 2 }
            : {},
    });
    expect(wholeValue(apart, 'two-tongues')).toBeCloseTo(60, 6);
    expect(sentenceOf(apart, 'two-tongues')).toMatch(/can be told apart/);
    expect(sentenceOf(apart, 'breath-body')).toMatch(/Another tone/);
    expect(said(apart).charts.find(({ kind }) => kind === 'table')).toMatchObject({
      rows: expect.objectContaining({ length: 8 }) as unknown,
    });
  });
});

describe('holds', () => {
  const holds = scoreOfFamily('long-hold', 'bassoon', { tempo: 60 });

  it('are as long as they were pure, the best and all of them', () => {
    const judged = judgedAsWritten(holds, {
      note: ({ from, index }) => ({
        puritySeconds: holds.notes[from]!.role === 'hold' ? 3 + index / 10 : 0.5,
      }),
    });
    const pure = figuresAt(judged.figures, 'hold-pure').map(({ value }) => value);
    expect(wholeValue(judged, 'best-hold')).toBeCloseTo(Math.max(...pure), 1);
    expect(wholeValue(judged, 'total-hold')).toBeCloseTo(
      pure.reduce((sum, each) => sum + each, 0),
      1,
    );
  });

  it('in a melody are the notes twice as long as usual; where there is none, the last', () => {
    const held = (beats: readonly number[]) => {
      const melody = scoreOfFamily('melody', 'flute', { tempo: 60 });
      let startBeat = 0;
      const notes = beats.map((each, i) => {
        const note = { ...melody.notes[i]!, startBeat, beats: each };
        startBeat += each;
        return note;
      });
      const judged = judgedAsWritten(
        { ...melody, notes },
        { note: ({ index }) => ({ puritySeconds: 1 + index }) },
      );
      return figuresAt(judged.figures, 'hold-pure').map(({ value }) => value);
    };
    expect(held([4, 1, 1, 4, 1, 1, 1])).toEqual([1, 4]);
    expect(held([1, 1, 1, 1, 1])).toEqual([5]);
  });

  it('that broke off early are a fault, but where one explores', () => {
    const short = { note: () => ({ puritySeconds: 0.4 }) };
    expect(kindsOf(judgedAsWritten(holds, short))).toContain('short-purity');
    expect(kindsOf(judgedAsWritten(scoreOfFamily('edge-hold', 'bassoon'), short))).toEqual([]);
  });
});

describe('the dynamic window', () => {
  const window = scoreOfFamily('dynamic-window', 'flute', { tempo: 60 });

  it('is told note by note, the narrowest named', () => {
    const judged = judgedAsWritten(window, {
      note: ({ from, index }) => ({
        levelDb: window.notes[from]!.role === 'softest' ? -40 : index < 2 ? -32 : -14,
      }),
    });
    expect(wholeValue(judged, 'window')).toBe(26);
    expect(sentenceOf(judged, 'window')).toMatch(/^Narrowest: .+, 8 dB; your limit is 15 dB\.$/);
    expect(judged.faults.filter(({ kind }) => kind === 'narrow-window')).toHaveLength(1);
  });
});

describe('the register test', () => {
  const test = scoreOfFamily('register-test', 'clarinet-bb');

  it.each([
    [[], 'It held to the end', null],
    [
      [{ group: 0, kind: 'undertone' as const, after: 2 }],
      'An undertone growled below G♯5 after 2.0 s',
      'undertone',
    ],
    [[{ group: 0, kind: 'squeak' as const, after: 2 }], 'A squeak in G♯5 after 2.0 s', 'squeak'],
  ])('%j means: %s', (events, headline, kind) => {
    const judged = judgedAsWritten(test, { events });
    expect(said(judged).headline).toBe(headline);
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
    expect(said(judgedAsWritten(check, { conditions: { floorDb } })).headline).toBe(headline);
  });

  it('tells what the microphone does by itself', () => {
    const judged = judgedAsWritten(check, {
      conditions: { processing: ['gain-control', 'noise-suppression'] },
    });
    expect(sentenceOf(judged, 'processing')).toMatch(/keeps gain control and noise suppression on/);
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
  expect(said(judged).headline).toBe('A4 in tune and steady');
  const take = asWritten(heldNote('flute'));
  const elsewhere = { ...take, instrument: null, score: { ...take.score, instrumentId: 'own-elsewhere' } };
  const foreign = say(judge(elsewhere, limitsOf('steady')), 'english');
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
    expect(notes.every(({ manner }) => manner === null)).toBe(true);
  }
});
