import type { Fault } from '@/core/verdict';
import { findFamily } from '@/core/music';
import { handAt, instruments, writtenRange } from '@/core/instruments';
import { ruleFor, RULES, type Rule } from '.';
import { FAULT_KINDS } from '@/core/verdict';

/** Every place, loudness and way to a note in which a fault of a rule's kind can be heard on an instrument. */
function* cases(rule: Rule) {
  for (const instrument of instruments) {
    const { low, high } = writtenRange(instrument);
    for (const written of [null, low, Math.round((low + high) / 2), high])
      for (const dynamic of [null, 'p', 'mf', 'f'] as const)
        for (const atSlur of [false, true]) {
          const fault: Fault = {
            kind: rule.fault,
            group: 0,
            atSlur,
            size: 2,
            confidence: 0.8,
            dynamic,
            amount: null,
          };
          yield { instrument, written, fault };
        }
  }
}

const named = (rule: Rule, i: number) =>
  [
    `${i} ${rule.fault} ${rule.kinds?.join('/') ?? ''} ${rule.where ?? ''} ${rule.dynamic ?? ''}`,
    rule,
  ] as const;

describe.each(RULES.map(named))('rule %s', (_, rule) => {
  it('speaks somewhere: none more particular hides it everywhere', () => {
    const speaks = [...cases(rule)].some(
      ({ instrument, written, fault }) =>
        ruleFor(fault, written, instrument, { reed: rule.needs !== undefined }) === rule,
    );
    expect(speaks).toBe(true);
  });

  it('has something for every school, an exercise that there is, and is never certain', () => {
    const { any, air, support, shape } = rule.tries;
    expect(any !== undefined || (air !== undefined && support !== undefined && shape !== undefined)).toBe(
      true,
    );
    expect(findFamily(rule.serves)).toBeDefined();
    expect(rule.sure).toBeGreaterThan(0);
    expect(rule.sure).toBeLessThan(0.9);
    expect(rule.cause).toMatch(/\.$/);
  });
});

test('no two rules fit the same place equally well: what is said never depends on their order', () => {
  const where = (rule: Rule) =>
    [
      rule.fault,
      rule.kinds?.join(),
      rule.instruments?.join(),
      rule.hand,
      rule.where,
      rule.dynamic,
      rule.atSlur,
      rule.needs,
    ].join('|');
  expect(new Set(RULES.map(where)).size).toBe(RULES.length);
});

test('every fault has a cause and something to try on every kind of instrument, at every place', () => {
  const without: string[] = [];
  for (const kind of FAULT_KINDS)
    for (const { instrument, written, fault } of cases({ fault: kind } as Rule))
      if (ruleFor(fault, written, instrument)?.fault !== kind) without.push(`${kind} ${instrument.id}`);
  expect(without).toEqual([]);
});

test('a thumb is spoken of only where the instrument has one at work at that note', () => {
  const wrong: string[] = [];
  for (const kind of FAULT_KINDS)
    for (const { instrument, written, fault } of cases({ fault: kind } as Rule)) {
      if (instrument.kind !== 'ducted') continue;
      const rule = ruleFor(fault, written, instrument);
      const hand = written === null ? null : handAt(instrument, written, null);
      const said = [rule?.cause, ...Object.values(rule?.tries ?? {})].join(' ');
      if (/thumb/i.test(said) !== (rule?.hand === 'thumb') || (/thumb/i.test(said) && hand?.mark !== 'thumb'))
        wrong.push(`${kind} ${instrument.id} ${written}: ${said}`);
    }
  expect(wrong).toEqual([]);
  // A recorder's F an octave and a half up is vented; its lowest is not, and a whistle has no thumb hole.
  const [alto, whistle] = ['recorder-alto', 'whistle-d'].map((id) =>
    instruments.find((each) => each.id === id)!,
  );
  const squeak = [...cases({ fault: 'squeak' } as Rule)][0]!.fault;
  expect(ruleFor(squeak, 84, alto!)?.cause).toBe('The thumb.');
  expect(ruleFor(squeak, 65, alto!)?.cause).toMatch(/finger/);
  expect(ruleFor(squeak, 81, whistle!)?.cause).toMatch(/finger/);
});

test('a reed is never blamed after one ordinary take', () => {
  const blamed: string[] = [];
  for (const kind of FAULT_KINDS)
    for (const { instrument, written, fault } of cases({ fault: kind } as Rule)) {
      const rule = ruleFor(fault, written, instrument);
      const said = [rule?.cause, ...Object.values(rule?.tries ?? {})].join(' ');
      if (/easier reed|reed is|reed may|another reed|harder reed/.test(said)) blamed.push(said);
    }
  expect(blamed).toEqual([]);
});
