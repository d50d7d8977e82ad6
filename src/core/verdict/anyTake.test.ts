import * as fc from 'fast-check';
import { runs } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { LEVELS } from '@/core/music';
import { groupsOf } from '@/core/hearing/matching';
import type { Take } from '@/core/take';
import { isKnown, judge, limitsOf, say, type FaultKind, type Judgement } from '.';
import { anyTake } from './anyTake.testing';
import { advise } from './coach';
import { contradictions, sentencesOf, suspects } from './truth.testing';

/** Faults whose limit is the least that was asked for. */
const AT_LEAST: ReadonlySet<FaultKind> = new Set(['narrow-window']);

/** Holds for the judgement of any take, at any level. */
const always = (check: (judgement: Judgement, take: Take) => void): void =>
  fc.assert(
    fc.property(
      anyTake('flute', 'clarinet-bb', 'bassoon', 'recorder-alto'),
      fc.constantFrom(...LEVELS),
      (take, level) => check(judge(take, limitsOf(level)), take),
    ),
    { numRuns: runs(250) },
  );

describe('whatever was heard', () => {
  it('what is said has no hole, no bare number and no sentence against another', () =>
    always((judgement) => {
      for (const naming of ['english', 'german', 'fixed-do'] as const) {
        const verdict = say(judgement, naming);
        expect(suspects(verdict)).toEqual([]);
        expect(contradictions(judgement, verdict)).toEqual([]);
        expect(sentencesOf(verdict).slice(0, 1)).not.toEqual(['']);
      }
    }));

  it('a figure is a number, or unknown with its reason', () =>
    always(({ figures }) => {
      for (const figure of figures)
        if (isKnown(figure)) expect(Number.isFinite(figure.value)).toBe(true);
        else expect(figure.unknown).toMatch(/./);
    }));

  it('a fault is at a note or a slur that was asked for, on the wrong side of a limit that it names', () =>
    always(({ faults }, { score }) => {
      const groups = groupsOf(score, findInstrument(score.instrumentId)!).length;
      for (const { kind, group, amount } of faults) {
        if (group !== null) expect(group >= 0 && group < groups).toBe(true);
        if (!amount?.limit) continue;
        // What has two sides is over its limit without its sign; a level under full scale, and what is too little, with it.
        const signed = amount.limit < 0 || AT_LEAST.has(kind);
        const over = (signed ? amount.value : Math.abs(amount.value)) - amount.limit;
        expect(`${kind} ${AT_LEAST.has(kind) ? over < 0 : over > 0}`).toBe(`${kind} true`);
      }
    }));

  it('the advice is about what was worst, and whole sentences', () =>
    always((judgement) => {
      const advice = advise(judgement, 'air', 'english');
      expect(advice?.kind ?? null).toBe(judgement.ranked[0]?.kind ?? null);
      for (const sentence of advice ? [advice.heard, advice.cause, advice.attempt] : [])
        expect(sentence).toMatch(/^(?!.*(undefined|NaN|null|Infinity)).{5,}/s);
    }));
});
