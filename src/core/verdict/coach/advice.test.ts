import * as fc from 'fast-check';
import { runs, thinned, WHOLE } from '@/core/base/thinned.testing';
import { judgedAsWritten, said, type Otherwise } from '@/core/verdict/asWritten.testing';
import { families, findFamily, type Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, instruments } from '@/core/instruments';
import { groupsOf, type Group } from '@/core/hearing/matching';
import { advise, nextTempo, SCHOOLS, type Advice, type School } from '.';

const SCHOOL_IDS = SCHOOLS.map(({ id }) => id);
const adviceOn = (score: Score, otherwise: Otherwise, school: School = 'air') =>
  advise(judgedAsWritten(score, otherwise), school, 'english');

/** One thing that can go wrong at a note. */
const MISHAPS: Readonly<Record<string, (group: Group) => Otherwise>> = {
  low: ({ index }) => ({ note: (each) => ({ centreCents: each.index === index ? -31 : 0 }) }),
  high: ({ index }) => ({ note: (each) => ({ centreCents: each.index === index ? 31 : 0 }) }),
  shaking: ({ index }) => ({ note: (each) => ({ wobbleCents: each.index === index ? 14 : 1 }) }),
  airy: ({ index }) => ({ note: (each) => ({ airinessDb: each.index === index ? -2 : -35 }) }),
  wrong: ({ index }) => ({
    note: (each) => (each.index === index ? { soundingMidi: each.sounding + 1 } : {}),
  }),
  'broken up': ({ index, sounding }) => ({
    events: [{ group: index, kind: 'break', after: 0.5, midi: sounding + 12 }],
  }),
  'broken down': ({ index, sounding }) => ({
    events: [{ group: index, kind: 'break', after: 0.5, midi: sounding - 12 }],
  }),
  squeak: ({ index, sounding }) => ({
    events: [{ group: index, kind: 'squeak', after: 0.4, midi: sounding + 30 }],
  }),
  undertone: ({ index }) => ({ events: [{ group: index, kind: 'undertone', after: 0.3 }] }),
  'late to speak': ({ index }) => ({
    events: [{ group: index, kind: 'late-speech', after: -0.2, lasts: 0.2 }],
  }),
  hole: ({ index }) => ({ events: [{ group: index, kind: 'gap', after: 0 }] }),
};

/** Everything a player can do with an advice has to be there and to work, on their instrument. */
function expectUseful(advice: Advice, score: Score): void {
  const { heard, cause, attempt, others, school, serves, drill, cue } = advice;
  expect(heard).toMatch(/^[A-Z\d].*\.$/s);
  for (const sentence of [cause, attempt]) expect(sentence.length).toBeGreaterThan(4);
  expect(others.every((other) => other.school !== school && other.attempt !== attempt)).toBe(true);
  expect(serves?.family).not.toBe(score.family);
  for (const remedy of [serves, drill]) {
    if (!remedy) continue;
    const made = findFamily(remedy.family)!.make(findInstrument(score.instrumentId)!, remedy.values);
    if (!made.ok) throw new Error(`${remedy.family}: ${made.problem}`);
    if (cue) expect(made.value.cue).toBe(cue.text);
  }
}

describe('whatever goes wrong, on whatever instrument', () => {
  it('the advice names the place, and everything it offers can be played', () => {
    const judged = families.filter(({ section }) =>
      ['sound', 'seams', 'intonation', 'rhythm'].includes(section),
    );
    let given = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...instruments),
        fc.constantFrom(...judged),
        fc.constantFrom(...Object.entries(MISHAPS)),
        fc.constantFrom(...SCHOOL_IDS),
        fc.nat(),
        (instrument, family, [mishap, happen], school, n) => {
          const made = family.make(instrument);
          if (!made.ok || made.value.counts.exploring || made.value.company) return;
          const score = made.value;
          const groups = groupsOf(score, instrument);
          const group = groups[n % groups.length]!;
          const judgement = judgedAsWritten(score, happen(group));
          const advice = advise(judgement, school, 'english');
          if (!advice) return;
          given++;
          expectUseful(advice, score);
          if (judgement.faults.every((fault) => fault.group === group.index))
            expect(`${mishap}: ${advice.heard}`).toContain(said(judgement).notes[group.index]!.name);
        },
      ),
      { numRuns: runs(250) },
    );
    expect(given).toBeGreaterThan(WHOLE ? 100 : 25);
  });

  it('none of it is medical, and none of it is certain', () => {
    for (const instrument of thinned(instruments, 8))
      for (const happen of Object.values(MISHAPS)) {
        const score = scoreOfFamily('low-chromatics', instrument.id);
        const advice = adviceOn(score, happen(groupsOf(score, findInstrument(instrument.id)!)[1]!));
        if (!advice) continue;
        const all = [advice.heard, advice.cause, advice.attempt, advice.disagreement ?? ''].join(' ');
        expect(all).not.toMatch(
          /\b(doctor|pain|injur\w*|muscle strain|disease|therap\w*|always works|never fails)\b/i,
        );
        expect(['quite sure', 'likely', 'a guess']).toContain(advice.confidence);
      }
  });
});

describe('what comes first', () => {
  const scale = scoreOfFamily('low-chromatics', 'flute', { joined: false });

  it('a note that broke, before notes that were a little out', () => {
    const advice = adviceOn(scale, {
      note: ({ index }) => ({ centreCents: index > 5 ? 10 : 0 }),
      events: [{ group: 2, kind: 'break', after: 0.5, midi: 90 }],
    });
    expect(advice?.kind).toBe('break-up');
  });

  it('what happens everywhere, before what happened once', () => {
    const advice = adviceOn(scale, {
      note: ({ index }) => ({ wobbleCents: index === 1 ? 7 : 1, centreCents: -22 }),
    });
    expect(advice?.kind).toBe('steadily-low');
    expect(advice?.drill).toBeNull();
  });

  it('places are named in the order of the music, and many are counted', () => {
    const at = (...groups: number[]) =>
      adviceOn(scale, { events: groups.map((group) => ({ group, kind: 'squeak' as const, after: 0.3 })) })
        ?.heard;
    expect(at(4, 1)).toMatch(/: .+ and .+\.$/);
    expect(at(1, 2, 3, 4, 5)).toMatch(/ and 2 more\.$/);
  });
});

describe('advice goes with the place and the loudness', () => {
  const low = (id: string, dynamic: string) => {
    const score = scoreOfFamily('reference-travel', id, { dynamic, joined: false });
    return adviceOn(score, { note: () => ({ centreCents: -25 }) });
  };

  it('loud and low on a single reed is another thing than soft and low', () => {
    const score = scoreOfFamily('reference-travel', 'clarinet-bb', { dynamic: 'ff', joined: false });
    const advice = adviceOn(score, { note: ({ index }) => ({ centreCents: index === 2 ? -25 : 0 }) });
    expect(advice?.cause).toMatch(/falls when loud/);
    expect(advice?.attempt).toMatch(/ring of the lips/);
    expect(low('clarinet-bb', 'p')?.attempt).not.toMatch(/ring of the lips/);
  });

  it('without lips there is nothing to bite with', () => {
    for (const { id } of instruments.filter(({ kind }) => kind === 'ducted'))
      for (const happen of Object.values(MISHAPS)) {
        const score = scoreOfFamily('low-chromatics', id);
        const advice = adviceOn(score, happen(groupsOf(score, findInstrument(id)!)[1]!), 'shape');
        const said = [advice?.cause, advice?.attempt, ...(advice?.others ?? []).map((o) => o.attempt)].join(
          ' ',
        );
        expect(said).not.toMatch(/\b(bite|biting|jaw|turn (in|out)|embouchure|reed)\b/i);
      }
  });
});

describe('after a drill', () => {
  const drill = scoreOfFamily('just-this-seam', 'flute', { from: 75, to: 76, tempo: 60 });
  const next = (otherwise: Otherwise = {}) => nextTempo(judgedAsWritten(drill, otherwise));

  it('clean goes two notches up, failed two down, and a doubtful fault decides nothing', () => {
    expect(next()).toMatchObject({ tempo: 66 });
    expect(next({ slur: () => ({ dipDb: 20 }) })!.tempo).toBeLessThan(60);
    expect(next({ note: ({ index }) => ({ airinessDb: index === 1 ? -8 : -35 }) })).toMatchObject({
      tempo: 66,
    });
  });

  it('asks for five clean in a row before it goes up, and leaves it where only the row is missing', () => {
    const few = scoreOfFamily('just-this-seam', 'flute', { from: 75, to: 76, tempo: 60, times: 2 });
    expect(nextTempo(judgedAsWritten(few))).toBeNull();
    // Ten crossings of which the fifth and sixth failed: four and four.
    expect(next({ slur: ({ index }) => ({ dipDb: index === 7 || index === 8 ? 20 : 1 }) })).toMatchObject({
      tempo: 56,
    });
  });
});
