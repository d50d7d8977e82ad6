import { scoreOf } from '@/core/music';
import type { Note } from '@/core/hearing/notes';
import { beatSeconds, joinHeard, NO_BEAT, longestPlaying, type HeardTake } from '.';
import { EMPTY_TRACE, emptyTake } from './takes.testing';

const note = (startSeconds: number, soundingMidi = 69): Note =>
  ({ startSeconds, endSeconds: startSeconds + 0.8, soundingMidi }) as Note;

/** A stretch of two slurred notes, with a hole at the second. */
function stretch(seconds: number, step: number, firstBeatSeconds: number | null): HeardTake {
  const count = Math.ceil(seconds / step);
  const known = Array.from({ length: count }, () => 69);
  return {
    durationSeconds: seconds,
    notes: [note(0.2), note(1.1, 71)],
    events: [
      { kind: 'gap', startSeconds: 1, endSeconds: 1.05, soundingMidi: null, noteIndex: 1, confidence: 0.8 },
    ],
    transitions: [
      {
        from: 0,
        to: 1,
        startSeconds: 1,
        endSeconds: 1.1,
        seconds: 0.1,
        overshootCents: 0,
        dipDb: 12,
        bumpDb: 0,
        levelStepDb: 0,
        faintBlip: {
          kind: 'blip',
          startSeconds: 1,
          endSeconds: 1.05,
          soundingMidi: 83,
          noteIndex: 1,
          confidence: 0.7,
        },
      },
    ],
    floorDb: -60,
    room: { decaySeconds: 0.1, spreadDb: 0 },
    clipped: false,
    lostSeconds: 0,
    trace: {
      ...EMPTY_TRACE,
      stepSeconds: step,
      pitchMidi: known,
      levelDb: known.map(() => -20),
      airinessDb: known,
      brightness: known,
      richness: known,
    },
    timing: { ...NO_BEAT, firstBeatSeconds, roundTrip: { seconds: 0.05, how: 'device' } },
    heldHz: null,
    steadyHz: [220 + seconds / 100],
    audio: new Int16Array(Math.round(seconds * 100)).fill(seconds),
  };
}

const score = scoreOf({
  family: 'x',
  title: 'x',
  instrumentId: 'flute',
  tempo: 60,
  beatsPerBar: 4,
  countInBeats: 4,
  vibrato: 'none',
  notes: [],
});

describe('a take that was played in stretches', () => {
  const whole = joinHeard([
    { heard: stretch(2, 0.03, 0.1), beat: 0 },
    { heard: stretch(3, 0.06, 0.5), beat: 8 },
    { heard: stretch(2, 0.03, 0.2), beat: 12 },
  ]);

  it('has everything in order, at its time, with indices that still point to the same notes', () => {
    expect(whole.durationSeconds).toBe(7);
    // The same hum in each of them.
    expect(whole.steadyHz).toEqual([220.02]);
    expect(whole.notes.map((each) => each.startSeconds)).toEqual([0.2, 1.1, 2.2, 3.1, 5.2, 6.1]);
    expect(whole.events.map((event) => event.noteIndex)).toEqual([1, 3, 5]);
    expect(whole.transitions.map(({ from, to }) => [from, to])).toEqual([
      [0, 1],
      [2, 3],
      [4, 5],
    ]);
    for (const { to, endSeconds, faintBlip } of whole.transitions) {
      expect(whole.notes[to]!.startSeconds).toBeCloseTo(endSeconds, 9);
      expect(faintBlip?.noteIndex).toBe(to);
      expect(faintBlip?.startSeconds).toBeCloseTo(endSeconds - 0.1, 9);
    }
  });

  it('loses no sound, and its trace is as long as it', () => {
    expect(whole.audio).toHaveLength(700);
    expect([whole.audio[0], whole.audio[300], whole.audio[699]]).toEqual([2, 3, 2]);
    expect(whole.trace.pitchMidi.length * whole.trace.stepSeconds).toBeCloseTo(7, 0);
    expect(whole.trace.stepSeconds).toBe(0.06);
  });

  it('knows where each beat fell in the stretch it was played in', () => {
    expect(beatSeconds(whole.timing, score, 4)).toBeCloseTo(0.1 + 4 + 0.05, 9);
    expect(beatSeconds(whole.timing, score, 8)).toBeCloseTo(2.5 + 0.05, 9);
    expect(beatSeconds(whole.timing, score, 10)).toBeCloseTo(4.5 + 0.05, 9);
    expect(beatSeconds(whole.timing, score, 13)).toBeCloseTo(5.2 + 1 + 0.05, 9);
    expect(beatSeconds(NO_BEAT, score, 3)).toBeNull();
  });

  it('is one stretch when there was one, and nothing when there was none', () => {
    const one = stretch(2, 0.03, null);
    expect(joinHeard([{ heard: one, beat: 0 }])).toBe(one);
    expect(() => joinHeard([])).toThrow('nothing to join');
  });
});

test('a note is found in another take where it was held longest', () => {
  const other = emptyTake({ id: 'b', notes: [note(0, 71), note(3), { ...note(5), endSeconds: 9 }] });
  expect(longestPlaying(other, 69)).toMatchObject({ take: { id: 'b' }, startSeconds: 5, endSeconds: 9 });
  expect(longestPlaying(other, 70)).toBeNull();
});
