import { figuresAt, judge, limitsOf, say, wholeOf } from '@/core/verdict';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, soundingOf } from '@/core/instruments';
import { simulateTake } from '@/core/lab';

const LEAD = 2.6;

/** A flute against a partner who holds a note a few cents off, of which nothing is told beforehand. */
function against(interval: string, partnerCents: number, partnerLead = 2.4) {
  const flute = findInstrument('flute')!;
  const drone = 62;
  const hertz = 440 * 2 ** ((soundingOf(flute, drone) - 69 + partnerCents / 100) / 12);
  const { take } = simulateTake({
    score: scoreOfFamily('drone-work', 'flute', { interval, drone, partner: true }),
    player: { offsetCents: 6, wobbleCents: 0.5 },
    seed: 3,
    leadSeconds: LEAD,
    tailSeconds: 1,
    room(audio, rate) {
      const from = Math.round((LEAD - partnerLead) * rate);
      for (let i = from; i < audio.length; i++)
        for (let k = 1; k <= 8; k++)
          audio[i]! +=
            (0.05 / k) * Math.sin((2 * Math.PI * k * hertz * i) / rate) * Math.min(1, (i - from) / 800);
    },
    told: { company: true, partner: true },
  });
  return { heldHz: take.heldHz, hertz, judgement: judge(take, limitsOf('steady')) };
}

describe('a partner who holds a note', () => {
  it.each([
    ['fifth', 3, 6 - 3 - 1.955],
    ['major-third', -4, 6 + 4 + 13.686],
    ['minor-third', 0, 6 - 15.641],
  ])('is found first, and the %s told against what was really held', (name, cents, truth) => {
    const { heldHz, hertz, judgement } = against(name, cents);
    expect(Math.abs(1200 * Math.log2((heldHz ?? NaN) / hertz))).toBeLessThan(0.5);
    const [interval] = figuresAt(judgement.figures, 'just-cents');
    expect(Math.abs(interval!.value - truth)).toBeLessThan(1.5);
  });

  it('that was not heard alone leaves the figure unknown, with what to do', () => {
    const { heldHz, judgement } = against('fifth', 3, 0.3);
    expect(heldHz).toBeNull();
    expect(wholeOf(judgement.figures, 'just')).toMatchObject({ unknown: 'nothing-held-alone' });
    const finding = say(judgement, 'english').findings.find((each) => each.id === 'just');
    expect(finding?.value).toBeNull();
    expect(finding?.sentence).toMatch(/sound alone for two seconds/);
  });
});
