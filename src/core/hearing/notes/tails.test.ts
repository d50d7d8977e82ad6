import { findInstrument } from '@/core/instruments';
import { hearNotes } from '.';
import { soundingLine } from './line';
import { DECAY, ringingFrames, type Tone } from './ringing.testing';
import { withoutTails } from './tails';

const OBOE = findInstrument('oboe')!;
const noteNames = (tones: readonly Tone[]) =>
  hearNotes(ringingFrames(tones, OBOE), OBOE).notes.map(({ soundingMidi }) => soundingMidi);

test('what a note and the one that rings on repeat together is no note before it', () => {
  const strongSecond = [-8, 0, -40];
  for (const [first, second] of [
    [76, 72],
    [78, 84],
    [80, 76],
  ] as const)
    expect(
      noteNames([
        { midi: 69, from: 0.5, to: 1, partials: [0, -10] },
        { midi: first, from: 1.4, to: 2, partials: strongSecond },
        { midi: second, from: 2, to: 2.5, partials: strongSecond },
      ]),
    ).toEqual([69, first, second]);
});

describe('what rings on after a note', () => {
  const frames = ringingFrames(
    [
      { midi: 69, from: 0.5, to: 1.2, partials: [0, -10] },
      { midi: 81, from: 1.2, to: 1.5, partials: [0, -10] },
    ],
    OBOE,
  );
  const hop = frames.hopSeconds;
  const line = soundingLine(frames, 440);
  const at = (seconds: number) => Math.round(seconds / hop);
  const part = (pitch: number, from: number, to: number) => ({
    pitch,
    from: at(from),
    to: at(to),
    joined: true,
  });

  it('is the note’s, whichever of its partials is found', () => {
    const parts = [part(81, 1.2, 1.52), part(93, 1.52, 1.64)];
    expect(withoutTails(parts, line, hop, DECAY)).toEqual([part(81, 1.2, 1.64)]);
  });

  it('is the note’s where a swing and its echo add up to a pitch beside it, for less than a note', () => {
    const beside = [part(81, 1.2, 1.49), part(81.6, 1.49, 1.66)];
    expect(withoutTails(beside, line, hop, DECAY)).toEqual([part(81, 1.2, 1.66)]);
    const further = [part(81, 1.2, 1.56), part(80, 1.56, 1.66)];
    expect(withoutTails(further, line, hop, DECAY)).toEqual([part(81, 1.2, 1.66)]);
  });

  it('is another note where it sounds for as long as one, is as loud further off, or is followed at once', () => {
    for (const parts of [
      [part(81, 1.2, 1.3), part(81.6, 1.3, 1.64)],
      [part(81, 1.2, 1.46), part(80, 1.46, 1.64)],
      [part(81, 1.2, 1.49), part(81.6, 1.49, 1.6), part(85, 1.6, 1.66)],
    ])
      expect(withoutTails(parts, line, hop, DECAY)).toEqual(parts);
  });

  it('is looked for after a note of any length', () => {
    const long = Math.ceil(1800 / hop);
    const held = {
      ...line,
      levelDb: new Float64Array(long).fill(-20),
      hopDb: new Float32Array(long).fill(-20),
    };
    const parts = [part(69, 0.5, 1.2), { pitch: 81, from: at(1.2), to: long, joined: true }];
    expect(withoutTails(parts, held, hop, DECAY)).toEqual(parts);
  });

  it('is another note where it begins by sounding, where it is no partial, and where nothing rings', () => {
    const octave = [part(69, 0.5, 1.2), part(81, 1.2, 1.64)];
    expect(withoutTails(octave, line, hop, DECAY)).toEqual(octave);
    const third = [part(81, 1.2, 1.52), part(85, 1.52, 1.64)];
    expect(withoutTails(third, line, hop, DECAY)).toEqual(third);
    const dry = [part(81, 1.2, 1.52), part(93, 1.52, 1.64)];
    expect(withoutTails(dry, line, hop, 0.05)).toEqual(dry);
  });
});
