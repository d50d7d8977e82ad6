import { findInstrument, listeningRange } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { midiToHertz, type Midi } from '@/core/tuning';
import { hearNotes } from '.';
import { soundingLine } from './line';
import { withoutTails } from './tails';

const RATE = 48_000;
const OBOE = findInstrument('oboe')!;
/** A room that rings for so long, seconds for 60 dB. */
const DECAY = 0.4;

interface Tone {
  readonly midi: Midi;
  readonly from: number;
  readonly to: number;
  /** Levels of its partials, dB, from the first. */
  readonly partials: readonly number[];
}

/** Tones that stop at once by 3 dB, and ring on; half a second of silence before and after. */
function framesOf(tones: readonly Tone[]) {
  const end = Math.max(...tones.map(({ to }) => to)) + 1;
  const audio = new Float32Array(Math.round(end * RATE));
  for (const { midi, from, to, partials } of tones)
    for (let i = Math.round(from * RATE); i < audio.length; i++) {
      const t = i / RATE;
      const rung = Math.max(0, t - to);
      const stopped = Math.min(1, rung / 0.01);
      const dB = -3 * stopped - (60 * rung) / DECAY;
      const edge = Math.min(1, (t - from) / 0.02) * 10 ** (dB / 20);
      partials.forEach((level, k) => {
        audio[i]! +=
          0.1 * edge * 10 ** (level / 20) * Math.sin(2 * Math.PI * (k + 1) * midiToHertz(midi) * t + k);
      });
    }
  const listener = new Listener(RATE, listeningRange(OBOE));
  listener.push(audio);
  return listener.finish();
}
const noteNames = (tones: readonly Tone[]) =>
  hearNotes(framesOf(tones), OBOE).notes.map(({ soundingMidi }) => soundingMidi);

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
  const frames = framesOf([
    { midi: 69, from: 0.5, to: 1.2, partials: [0, -10] },
    { midi: 81, from: 1.2, to: 1.5, partials: [0, -10] },
  ]);
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

  it('is another note where it begins by sounding, where it is no partial, and where nothing rings', () => {
    const octave = [part(69, 0.5, 1.2), part(81, 1.2, 1.64)];
    expect(withoutTails(octave, line, hop, DECAY)).toEqual(octave);
    const third = [part(81, 1.2, 1.52), part(85, 1.52, 1.64)];
    expect(withoutTails(third, line, hop, DECAY)).toEqual(third);
    const dry = [part(81, 1.2, 1.52), part(93, 1.52, 1.64)];
    expect(withoutTails(dry, line, hop, 0.05)).toEqual(dry);
  });
});
