import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { steadyPlayer, type FaultRates, type Player } from '@/core/lab';
import { figuresAt, type ChartRow, type FigureId, type Judgement, type Verdict } from '.';
import { kindsOf, wholeValue as value } from './asWritten.testing';
import { playAndJudge } from './playAndJudge.testing';

type Judged = Judgement & { readonly verdict: Verdict };

/** A family played by a given player on an instrument, and judged. */
function judged(
  family: string,
  instrumentId: string,
  values: Record<string, unknown> = {},
  player: Partial<Player> = {},
  faults: Partial<FaultRates> = {},
  seed = 4,
): Judged {
  const asked = scoreOfFamily(family, instrumentId, values);
  const { judgement, verdict } = playAndJudge(asked, seed, { ...steadyPlayer, ...player }, faults);
  return { ...judgement, verdict };
}

const sentence = ({ verdict }: Judged, id: FigureId) =>
  verdict.findings.find((finding) => finding.id === id)?.sentence ?? '';
const rows = ({ verdict }: Judged): readonly ChartRow[] =>
  verdict.charts.flatMap((chart) => (chart.kind === 'rows' ? chart.rows : []));
const faultKinds = (take: Judged) => new Set(kindsOf(take));

describe('octave slurs', () => {
  const few = { range: { low: 64, high: 66 } };
  it('are all clean when they were, and the octaves as wide as they were', () => {
    const take = judged('octave-slurs', 'flute', few);
    expect(take.verdict.headline).toBe('All 6 slurs clean');
    expect(take.seams.every((seam) => seam.clean && seam.crosses)).toBe(true);
    expect(Math.abs(value(take, 'octaves'))).toBeLessThan(1.5);
    expect(take.faults).toEqual([]);
  });

  it('name the slurs that failed, each with its reason', () => {
    const take = judged('octave-slurs', 'flute', few, {}, { gap: 1 });
    expect(take.verdict.headline).toMatch(/^Holes in 6 slurs$/);
    expect(value(take, 'slurs-clean')).toBe(0);
    for (const seam of take.seams) expect(seam.why.map((each) => each.kind)).toContain('hole');
    expect(faultKinds(take)).toEqual(new Set(['hole']));
  });
});

describe('tapers and swells', () => {
  it('tell how the pitch goes with the level', () => {
    const flat = judged('tapers', 'flute', { range: { low: 69, high: 72 } }, { centsPer10Db: 9 });
    expect(Math.abs(value(flat, 'pitch-per-level') - 9)).toBeLessThan(1.2);
    expect(faultKinds(flat)).toContain('flat-when-fading');
    expect(flat.verdict.headline).toMatch(/^Flat when soft, \d+ cents per 10 dB$/);
    const kept = judged('tapers', 'flute', { range: { low: 69, high: 72 } });
    expect(Math.abs(value(kept, 'pitch-per-level'))).toBeLessThan(1);
    expect(faultKinds(kept)).not.toContain('flat-when-fading');
  });

  it('lie on the line that was asked for, the peak in the middle', () => {
    const take = judged('swells', 'clarinet-bb', { range: { low: 60, high: 64 } });
    expect(value(take, 'line')).toBeLessThan(1.2);
    expect(Math.abs(value(take, 'range') - 14)).toBeLessThan(2.5);
    expect(Math.abs(value(take, 'peak'))).toBeLessThan(350);
    expect(take.verdict.charts.map(({ title }) => title)).toHaveLength(3);
  });

  it('are uneven where the level shook', () => {
    const take = judged('swells', 'flute', { range: { low: 69, high: 72 } }, { levelWobbleDb: 4 });
    expect(value(take, 'line')).toBeGreaterThan(2.3);
    expect(faultKinds(take)).toContain('uneven-line');
  });
});

test('a breath sweep finds the breath that rings and the breath that is in tune', () => {
  const player = { offsetCents: -8, centsPer10Db: 16, ringAboveDb: 10 };
  for (const instrument of ['recorder-alto', 'oboe']) {
    const take = judged('breath-sweep', instrument, {}, player);
    // Of a way of 14 dB; in tune 5 dB up.
    expect(Math.abs(value(take, 'ring') - 4)).toBeLessThanOrEqual(1.5);
    expect(Math.abs(value(take, 'in-tune') - 9)).toBeLessThanOrEqual(1.5);
    expect(take.verdict.headline).toMatch(/rings most where it is \d+ cents high$/);
  }
});

test('bends are as far as they were played, each way', () => {
  const take = judged('bends', 'oboe', {}, { bends: { downCents: 40, upCents: 20 } });
  expect(Math.abs(value(take, 'bend-down') - 40)).toBeLessThanOrEqual(4);
  expect(Math.abs(value(take, 'bend-up') - 20)).toBeLessThanOrEqual(4.5);
  expect(value(take, 'bend-even')).toBeLessThan(4);
  expect(take.verdict.charts).toMatchObject([{ kind: 'curves', lines: { length: 4 } }]);
});

test('a dynamic window is as wide as it was played', () => {
  const take = judged('dynamic-window', 'flute', { range: { low: 67, high: 71 } });
  // pp and ff of the simulated player lie 25 dB apart.
  expect(Math.abs(value(take, 'window') - 25)).toBeLessThan(1.5);
  expect(rows(take)).toHaveLength(2);
});

describe('time', () => {
  it('says how far behind the beat, and how even', () => {
    const take = judged(
      'subdivision-ladder',
      'flute',
      { top: '8' },
      { latenessSeconds: 0.07, timingSpreadSeconds: 0.012 },
    );
    expect(Math.abs(value(take, 'offset') - 70)).toBeLessThan(14);
    expect(Math.abs(value(take, 'attack-spread') - 12)).toBeLessThan(6);
    expect(rows(take).map(({ name }) => name)).toEqual(
      [1, 2, 4, 8, 4, 2, 1].map((attacks) => `${attacks} a bar`),
    );
    expect(faultKinds(take)).toContain('drag');
  });

  it('hears a tempo that runs ahead', () => {
    const take = judged('roaming-scale', 'flute', { bars: 4 }, { tempoRatio: 1.04 });
    expect(sentence(take, 'offset')).toMatch(/ran ahead/);
    expect(Math.abs(value(take, 'tempo') - 76 * 1.04)).toBeLessThan(0.5);
  });

  it('measures swing', () => {
    const take = judged('roaming-scale', 'flute', { bars: 4, swing: true });
    expect(Math.abs(value(take, 'swing') - 2)).toBeLessThan(0.15);
  });
});

describe('intonation', () => {
  it('blind, tells which way one leans, and scolds nobody', () => {
    const take = judged('blind-tuning', 'flute', { notes: 4 }, { offsetCents: -14 });
    expect(Math.abs(value(take, 'leaning') + 14)).toBeLessThan(1);
    expect(rows(take)).toHaveLength(4);
    expect(take.faults).toEqual([]);
  });

  it('against a drone, counts from the pure interval and tells the beats', () => {
    const take = judged('drone-work', 'flute', { interval: 'fifth', drone: 62 }, { offsetCents: -6 });
    // The simulated player holds the pure fifth; he is low of it.
    expect(Math.abs(value(take, 'just') - 6)).toBeLessThan(1);
    expect(sentence(take, 'just')).toMatch(/fifth .*6 cents low/);
    expect(value(take, 'beats')).toBeGreaterThan(1);
  });

  it('finds where the slide should go', () => {
    const high = judged('setup-check', 'flute', {}, { offsetCents: 20 });
    expect(value(high, 'slide')).toBeGreaterThan(3);
    expect(sentence(high, 'slide')).toMatch(/^Pull out \d+\.\d mm from where it is/);
    const inside = judged('setup-check', 'flute', {}, { offsetCents: -4 });
    expect(inside.verdict.headline).toBe('The slide may stay where it is');
    expect(value(inside, 'slide')).toBe(0);
  });

  it('draws every note of a scan, soft and loud', () => {
    const take = judged(
      'tendency-scan',
      'flute',
      { range: { low: 67, high: 70 }, beats: 2 },
      { centsPer10Db: 6 },
    );
    expect(rows(take)).toHaveLength(12);
    // p and f lie 15 dB apart; only what a player does with a hairpin moves the pitch of this one.
    expect(Math.abs(value(take, 'soft-loud'))).toBeLessThan(2);
  });
});

test('a climb reaches its modes where the tube has them', () => {
  const take = judged('harmonic-climb', 'flute', { range: { low: 60, high: 60 }, modes: 4 });
  expect(take.verdict.headline).toBe('Every mode up to the 4th spoke');
  expect(figuresAt(take.figures, 'mode').map((mode) => mode.value)).toEqual([2, 3, 4]);
  for (const each of figuresAt(take.figures, 'mode-off')) expect(Math.abs(each.value)).toBeLessThan(2);
  expect(take.faults).toEqual([]);
});

test('a hold is pure as long as it was', () => {
  const take = judged('long-hold', 'flute', { range: { low: 67, high: 68 } });
  expect(value(take, 'best-hold')).toBeGreaterThan(6.5);
  expect(rows(take).map(({ name }) => name)).toEqual(['G4', 'G♯4']);
});

test('eight ways are told apart, each with its slurs', () => {
  const take = judged('eight-ways', 'flute', { notes: 4 });
  const table = take.verdict.charts.find((chart) => chart.kind === 'table');
  const slurs = (name: string) => table?.rows.find((way) => way.name === name)?.cells.at(-1);
  expect(table?.rows).toHaveLength(8);
  expect([slurs('slurred up'), slurs('tongued')]).toEqual(['3 of 3', '–']);
});

test('the anchor is the same at every return, or is said to have moved', () => {
  const take = judged('anchored-intervals', 'flute', { widest: 5 });
  expect(figuresAt(take.figures, 'anchor-cents').length).toBeGreaterThan(2);
  expect(sentence(take, 'anchor-cents')).toMatch(/was the same note at each/);
});

test('a comparison claims nothing where nothing changed, and never judges', () => {
  const take = judged('comparison', 'flute', { pair: 'tongue', rounds: 3 }, {}, { gap: 0.3 });
  expect(take.verdict.headline).toBe('No difference beyond chance');
  expect(take.faults).toEqual([]);
  expect(take.verdict.charts[0]?.title).toMatch(/^tongue low against tongue high/);
});

test('with a voice along, pitch and colour are not known, and nothing is made up', () => {
  const made = findFamily('comparison')!.make(findInstrument('flute')!, { pair: 'voice' });
  expect(made.ok && made.value.company).toBe(true);
});

test('what was played wrong or left out is said, and counted once', () => {
  const take = judged('melody', 'oboe', {}, {}, { wrongNote: 0.2 }, 9);
  const wrong = take.notes.filter((note) => note.match.state === 'wrong');
  expect(wrong.length).toBeGreaterThan(1);
  expect(sentence(take, 'notes-played')).toMatch(/came as others/);
  expect(value(take, 'notes-played')).toBe(take.notes.filter((note) => note.match.state === 'played').length);
});

test('exercises without the instrument claim nothing', () => {
  const made = findFamily('air-drills')!.make(findInstrument('flute')!);
  if (!made.ok) throw new Error(made.problem);
  expect(made.value.notes).toHaveLength(0);
});
