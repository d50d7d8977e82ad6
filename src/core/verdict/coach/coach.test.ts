import { FAULT_KINDS, type Fault, type FaultKind } from '@/core/verdict';
import { playAndJudge } from '@/core/verdict/playAndJudge.testing';
import { findFamily } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, instruments } from '@/core/instruments';
import { steadyPlayer, type FaultRates, type Player } from '@/core/lab';
import { advise, nextTempo, ruleFor, RULES, SCHOOLS, type School } from '.';

const fault = (kind: FaultKind, part: Partial<Fault> = {}): Fault => ({
  kind,
  group: 1,
  atSlur: false,
  size: 2,
  confidence: 0.8,
  dynamic: 'mf',
  amount: null,
  ...part,
});

function take(
  family: string,
  id: string,
  values: object,
  player: Partial<Player>,
  faults: Partial<FaultRates> = {},
) {
  return playAndJudge(scoreOfFamily(family, id, { ...values }), 4, { ...steadyPlayer, ...player }, faults);
}

describe('the table', () => {
  it('has a rule for every fault on every instrument, high and low', () => {
    for (const kind of FAULT_KINDS)
      for (const instrument of instruments)
        for (const register of instrument.registers)
          expect(ruleFor(fault(kind), register.low, instrument)?.fault).toBe(kind);
  });

  it('sends nobody to an exercise that is not there, and always has something to try', () => {
    for (const rule of RULES) {
      expect(findFamily(rule.serves)).toBeDefined();
      expect(Object.values(rule.tries).every((text) => text.length > 10)).toBe(true);
      const complete =
        rule.tries.any !== undefined || SCHOOLS.every(({ id }) => rule.tries[id] !== undefined);
      expect(complete).toBe(true);
    }
  });

  it('never gives medical advice', () => {
    for (const rule of RULES)
      expect(JSON.stringify(rule)).not.toMatch(/diagnos|treat|medicine|disease|injur|inflam|doctor/i);
  });

  it.each([
    ['break-down', 'bassoon', 57, /thumb key|vent key/],
    ['break-up', 'recorder-alto', 84, /breath back/],
    ['break-up', 'flute', 60, /warm/],
    ['squeak', 'clarinet-bb', 80, /bite/],
    ['steadily-low', 'oboe', 70, /never by biting/],
    ['flat-when-fading', 'flute', 70, /not slower air/],
    ['sharp-when-fading', 'clarinet-bb', 70, /lip/],
    ['steadily-high', 'recorder-alto', 70, /breath|shade/],
  ] as const)('%s on the %s is met as its players meet it', (kind, id, written, words) => {
    const rule = ruleFor(fault(kind), written, findInstrument(id)!);
    expect(rule?.tries.any ?? rule?.tries.air).toMatch(words);
  });

  it('counts a copy of an instrument as what it was copied from', () => {
    const copy = { ...findInstrument('bassoon')!, id: 'own-1', copiedFrom: 'bassoon' };
    expect(ruleFor(fault('break-down'), 57, copy)?.serves).toBe('vent-flick');
  });
});

describe('advice', () => {
  it('is silent where nothing was wrong', () => {
    const { judgement } = take('octave-slurs', 'flute', { range: { low: 64, high: 65 } }, { offsetCents: 0 });
    expect(advise(judgement, 'air', 'english')).toBeNull();
  });

  it('says what was heard, where, one cause, one thing; the other schools are there', () => {
    const { judgement } = take('octave-slurs', 'flute', { range: { low: 64, high: 65 } }, {}, { gap: 1 });
    const advice = advise(judgement, 'air', 'english')!;
    expect(advice.kind).toBe('hole');
    expect(advice.heard).toMatch(/^Holes in 4 slurs: E4 to E5, E5 to E4, F4 to F5 and F5 to F4/);
    expect(advice.attempt).toMatch(/fingers alone/);
    expect(advice.others.map(({ school }) => school)).toEqual(['support', 'shape']);
    expect(advice.confidence).toBe('quite sure');
    const support = advise(judgement, 'support' satisfies School, 'english')!;
    expect(support.attempt).not.toBe(advice.attempt);
  });

  it('cuts the failing place out as a drill, two notches slower, that can be played at once', () => {
    const { judgement } = take('octave-slurs', 'flute', { range: { low: 64, high: 64 } }, {}, { gap: 1 });
    const { drill } = advise(judgement, 'air', 'english')!;
    expect(drill?.values).toMatchObject({ tempo: 56 });
    expect([drill?.values['from'], drill?.values['to']].sort()).toEqual([64, 76]);
    const made = findFamily(drill!.family)!.make(findInstrument('flute')!, drill!.values);
    expect(made.ok && made.value.notes[1]?.written).toBe(drill?.values['to']);
  });

  it('sends a player whose pitch falls with the level to the tapers, but not from the tapers', () => {
    const fading = (family: string) => {
      const played = take(
        family,
        'flute',
        { range: { low: 69, high: 71 } },
        { centsPer10Db: 10, offsetCents: 0 },
      );
      const [fault] = played.judgement.ranked.filter(({ kind }) => kind === 'flat-when-fading');
      return advise({ ...played.judgement, ranked: fault ? [fault] : [] }, 'air', 'english');
    };
    expect(fading('swells')?.serves).toMatchObject({ family: 'tapers' });
    expect(fading('tapers')).toMatchObject({ kind: 'flat-when-fading' });
    expect(fading('tapers')?.serves?.family).not.toBe('tapers');
  });

  it('meets a whistle that cracks without a thumb, and says nothing to one that does not', () => {
    const values = { range: { low: 64, high: 65 } };
    const cracked = take('octave-slurs', 'whistle-d', values, { offsetCents: 0 }, { break: 1 });
    const advice = advise(cracked.judgement, 'air', 'english')!;
    expect(advice.kind).toMatch(/^break-/);
    expect(`${advice.cause} ${advice.attempt}`).not.toMatch(/thumb/);
    expect(advice.serves?.family).not.toBe('octave-slurs');
    const clean = take('octave-slurs', 'whistle-d', values, { offsetCents: 0 });
    expect(advise(clean.judgement, 'air', 'english')).toBeNull();
  });

  it('gives one thing to attend to, carries it to the drill, and notices when it was carried already', () => {
    const values = { range: { low: 64, high: 65 } };
    const first = take('octave-slurs', 'flute', values, {}, { gap: 1 });
    const advice = advise(first.judgement, 'air', 'english')!;
    expect(advice.cue).toEqual({ text: 'breath from the belly', carried: false });
    expect(advice.drill?.values['cue']).toBe('breath from the belly');
    const made = findFamily('just-this-seam')!.make(findInstrument('flute')!, advice.drill!.values);
    expect(made.ok && made.value.cue).toBe('breath from the belly');
    const again = take('octave-slurs', 'flute', { ...values, cue: 'breath from the belly' }, {}, { gap: 1 });
    expect(advise(again.judgement, 'air', 'english')?.cue?.carried).toBe(true);
  });

  it('does not scold exploring', () => {
    const { judgement } = take('bends', 'flute', {}, { offsetCents: 20, wobbleCents: 9 });
    expect(advise(judgement, 'air', 'english')).toBeNull();
  });
});

describe('tempo', () => {
  const drill = (faults: Partial<FaultRates>) =>
    take(
      'just-this-seam',
      'flute',
      { from: 64, to: 76, times: 3, beats: 1, tempo: 60 },
      { offsetCents: 0 },
      faults,
    );
  it('goes two notches up after five clean in a row, and down when it was not clean', () => {
    const clean = drill({});
    expect(nextTempo(clean.judgement)?.tempo).toBe(66);
    const holes = drill({ gap: 1 });
    expect(nextTempo(holes.judgement)?.tempo).toBe(56);
  });
  it('is not pushed where tempo is not what is worked on', () => {
    const { judgement } = take('swells', 'flute', { range: { low: 69, high: 70 } }, {});
    expect(nextTempo(judgement)).toBeNull();
  });
});
