import * as fc from 'fast-check';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { beatSeconds, NO_BEAT, type Timing } from '.';

const straight = scoreOfFamily('roaming-scale', 'flute', { tempo: 90 });
const swung = scoreOfFamily('roaming-scale', 'flute', { tempo: 60, swing: true });
const timing = (part: Partial<Timing>): Timing => ({ ...NO_BEAT, firstBeatSeconds: 1, ...part });
const beats = fc.integer({ min: 0, max: 400 }).map((half) => half / 2);

describe('where beats fell', () => {
  it('is as far apart as the tempo has them, late by the round trip', () => {
    fc.assert(
      fc.property(beats, fc.double({ min: 0, max: 0.3, noNaN: true }), (beat, late) => {
        const at = beatSeconds(timing({ roundTrip: { seconds: late, how: 'device' } }), straight, beat);
        expect(at).toBeCloseTo(1 + late + (beat * 60) / 90, 9);
      }),
    );
  });

  it('halves of swung beats come late, wholes on time', () => {
    expect(beatSeconds(timing({}), swung, 3)).toBeCloseTo(4, 9);
    expect(beatSeconds(timing({}), swung, 3.5)).toBeCloseTo(4 + 2 / 3, 9);
  });

  it('is not known in free time, nor where nothing beat', () => {
    expect(beatSeconds(timing({}), { ...straight, tempo: null }, 4)).toBeNull();
    expect(beatSeconds(NO_BEAT, straight, 4)).toBeNull();
  });

  it('counts a beat that was come back to where it was played last, and goes on from there', () => {
    const resumed = [
      { fromSeconds: 10, firstBeatSeconds: 12, beat: 6 },
      { fromSeconds: 30, firstBeatSeconds: 33, beat: 4 },
    ];
    const at = (beat: number) => beatSeconds(timing({ resumed }), { tempo: 60, swing: false }, beat);
    expect(at(2)).toBeCloseTo(3, 9);
    expect(at(4)).toBeCloseTo(33, 9);
    expect(at(6)).toBeCloseTo(35, 9);
    expect(at(9)).toBeCloseTo(38, 9);
  });

  it('only goes on within a stretch, whatever the beat', () => {
    const resumed = [{ fromSeconds: 10, firstBeatSeconds: 12, beat: 8 }];
    fc.assert(
      fc.property(beats, beats, (a, b) => {
        fc.pre(a < b && (b < 8 || a >= 8));
        const [first, second] = [a, b].map((beat) => beatSeconds(timing({ resumed }), swung, beat)!);
        expect(second!).toBeGreaterThan(first!);
      }),
    );
  });
});
