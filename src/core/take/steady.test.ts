import { thinned } from '@/core/base/thinned.testing';
import type { Note } from '@/core/hearing/notes';
import { simulateTake } from '@/core/lab';
import { scoreOfFamily } from '@/core/music/scores.testing';

/** Partials of a tone, each softer than the one before, added to what a player sounds. */
const sounding =
  (hz: number, level: number, partials: number) => (audio: Float32Array, sampleRate: number) => {
    for (let i = 0; i < audio.length; i++)
      for (let k = 1; k <= partials; k++)
        audio[i]! += (level / k) * Math.sin((2 * Math.PI * k * hz * i) / sampleRate);
  };
const pitch = ({ soundingMidi }: Note) => soundingMidi;
const tune = scoreOfFamily('octave-slurs', 'oboe', { range: { low: 67, high: 69 } });
const play = (room?: (audio: Float32Array, sampleRate: number) => void, score = tune) =>
  simulateTake({ score, seed: 7, ...(room && { room }) });

describe('what sounds all along although nobody told of it', () => {
  const alone = play();

  it('is found and taken out: the same notes are heard without faults', () => {
    for (const level of thinned([0.02, 0.1], 1)) {
      const { take } = play(sounding(220.7, level, 5));
      expect(take.conditions.steadyHz).toHaveLength(1);
      expect(take.conditions.steadyHz[0]).toBeCloseTo(220.7, 1);
      expect(take.notes.map(pitch)).toEqual(alone.take.notes.map(pitch));
      // Between detached notes a stop is what is asked for.
      expect(take.events.filter(({ kind }) => kind !== 'gap')).toEqual([]);
    }
  });

  it('may be the mains', () => {
    const { take } = play(sounding(100, 0.02, 3));
    expect(take.conditions.steadyHz.map(Math.round)).toEqual([100]);
    expect(take.notes).toHaveLength(alone.take.notes.length);
  });

  it('is nothing in a quiet room, nor the player’s own tone in a recording that was cut to it', () => {
    expect(alone.take.conditions.steadyHz).toEqual([]);
    const held = scoreOfFamily('long-tone', 'flute', { beats: 16 });
    const { take } = simulateTake({ score: held, seed: 3, leadSeconds: 0, tailSeconds: 0 });
    expect(take.conditions.steadyHz).toEqual([]);
    expect(take.notes.length).toBeGreaterThan(0);
  });
});
