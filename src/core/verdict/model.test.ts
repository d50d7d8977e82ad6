import { simulateTake } from '@/core/lab';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import type { Model } from '@/core/music';
import type { Player } from '@/core/lab';
import { judge, limitsOf } from '.';
import { said, wholeValue } from './asWritten.testing';

/** A recording of a held oboe note, as a model. */
function modelBy(player: Partial<Player>, note = 69): Model {
  const { take } = simulateTake({ score: heldNote('oboe', { note, beats: 4 }), player, seed: 8 });
  const heard = take.notes[0]!;
  return { recording: 'admired.wav', ...heard };
}

function towards(model: Model | null, player: Partial<Player> = {}) {
  const score = scoreOfFamily('toward-model', 'oboe', { note: 69, model, times: 2, beats: 4 });
  const { take } = simulateTake({ score, player, seed: 3 });
  const judgement = judge(take, limitsOf('steady'));
  const verdict = said(judgement);
  const finding = verdict.findings.find(({ id }) => id === 'model-steps')!;
  return { judgement, verdict, finding, steps: wholeValue(judgement, 'model-steps') };
}

describe('towards a model', () => {
  it('the same player is like the model, whatever the loudness', () => {
    const { judgement, verdict, steps } = towards(modelBy({ levelDb: -12 }), { levelDb: -24 });
    expect(steps).toBeLessThan(1);
    expect(verdict.headline).toBe('Like the model');
    expect(judgement.faults).toEqual([]);
  });

  it('says in what the colour differs, and in which direction', () => {
    const airy = towards(modelBy({ airinessDb: -40 }), { airinessDb: -18 });
    expect(airy.finding.sentence).toMatch(/with more air/);
    expect(airy.steps).toBeGreaterThan(1);
    const clear = towards(modelBy({ airinessDb: -18 }), { airinessDb: -40 });
    expect(clear.finding.sentence).toMatch(/with less air/);
    expect(airy.verdict.charts).toMatchObject([
      { kind: 'rows', rows: [{ name: '1: A4' }, { name: '2: A4' }] },
    ]);
  });

  it('is unknown without a model, and against another note, with the remedy', () => {
    expect(towards(null).finding).toMatchObject({ value: null });
    expect(towards(null).finding.sentence).toMatch(/choose a recording/);
    const other = towards(modelBy({}, 74));
    expect(other.finding.value).toBeNull();
    expect(other.finding.sentence).toMatch(/The model plays D5/);
  });
});
