import { hairpinsOf, type ScoreNote } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { groupsOf } from '@/core/hearing/matching';
import { steadyPlayer } from '.';
import { courseOf } from './course';

const oboe = findInstrument('oboe')!;

/** The course of a group of a family, its notes a second a beat. */
function course(family: string, values: Record<string, unknown>, index: number) {
  const score = scoreOfFamily(family, 'oboe', { tempo: 60, ...values });
  const group = groupsOf(score, oboe)[index]!;
  const end = (note: ScoreNote) => note.startBeat + note.beats;
  const plan = { starts: score.notes.map((note) => note.startBeat), hairpins: hairpinsOf(score.notes) };
  const player = { ...steadyPlayer, bends: { downCents: 40, upCents: 20 } };
  return courseOf(score, player, plan, group, end(score.notes[group.to]!));
}

describe('the course of a tone', () => {
  it('bends down and back, up and back, and stays where it is plain', () => {
    const [down, up, plain] = [0, 1, 2].map((index) => course('bends', { beats: 4 }, index).cents);
    for (const [seconds, cents] of [
      [0, 0],
      [3.9, 0],
      [6, -20],
      [8, -40],
      [10, -20],
      [12, 0],
    ] as const)
      expect(down!(seconds)).toBeCloseTo(cents, 6);
    expect([2, 4, 6].map(up!)).toEqual([10, 20, 10]);
    expect(plain!(2)).toBe(0);
  });

  it('is one line of level through tied notes, without a step', () => {
    const hold = course('edge-hold', { beats: 8, times: 1 }, 0);
    // Grows by 14 dB over four beats of mf, and stays at ff, 9 dB over it.
    expect(hold.levelDb(0)).toBeCloseTo(0, 6);
    expect(hold.levelDb(2)).toBeCloseTo(7, 6);
    expect(hold.levelDb(6)).toBeCloseTo(9, 6);
    for (let t = 0; t < 8; t += 0.005)
      expect(Math.abs(hold.levelDb(t + 0.005) - hold.levelDb(t))).toBeLessThan(0.5);
  });

  it('rises and falls by half of a swell each', () => {
    const swell = course('breath-sweep', { beats: 8 }, 0);
    expect([0, 4, 8, 12, 16].map(swell.levelDb)).toEqual([0, 7, 14, 7, 0]);
  });
});
