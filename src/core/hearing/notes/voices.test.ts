import fc from 'fast-check';
import type { Tone } from './tones';
import { voicesOf } from './voices';

/** Partials 1 to 6 of a note; the octave has every second of them. */
const TONES: Tone[] = [1, 2, 3, 4, 5, 6].map((k) => ({
  hertz: 300 * k,
  note: true,
  earlier: true,
  other: k % 2 === 0,
}));
const HELD = { from: 2, to: 4 };
const amplitude = (dB: number) => 10 ** (dB / 20);
const HOLDS = [-12, -24, -18, -30, -28, -35].map(amplitude);
const frame = (modes: number, others: number) =>
  Float64Array.from(HOLDS, (a, k) => a * amplitude(TONES[k]!.other ? modes : others));

test('the octave alone over a falling echo stands out by both', () => {
  const [echo, octave, held] = voicesOf(
    TONES,
    [frame(-8, -8), frame(9, -14), frame(0, 0), frame(0, 0)],
    HELD,
  );
  expect(echo!.modes).toBeCloseTo(-8);
  expect(echo!.others).toBeCloseTo(-8);
  expect(octave!.modes).toBeCloseTo(9);
  expect(octave!.others).toBeCloseTo(-14);
  expect(held!.modes).toBeCloseTo(0);
  expect(held!.others).toBeCloseTo(0);
});

test('a partial that the room hides has one voice among the others', () => {
  const hidden = frame(0, 0);
  hidden[0] = 1e-9;
  const [{ others } = { others: 0 }] = voicesOf(TONES, [hidden, frame(0, 0), frame(0, 0), frame(0, 0)], HELD);
  expect(others).toBeCloseTo(-20 / 3);
});

test('what is faint in the note is not counted', () => {
  const tones: Tone[] = [...TONES, { hertz: 2100, note: true, earlier: true, other: false }];
  const frames = [frame(0, -10), frame(0, 0), frame(0, 0), frame(0, 0)].map((of) => [...of]);
  const [first] = voicesOf(
    tones,
    frames.map((of, i) => Float64Array.from([...of, i === 0 ? 1 : amplitude(-60)])),
    HELD,
  );
  expect(first!.others).toBeCloseTo(-10);
});

test('how loud the whole is changes nothing', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -60, max: 20 }),
      fc.integer({ min: -10, max: 10 }),
      fc.integer({ min: -10, max: 10 }),
      (loudness, modes, others) => {
        const frames = [frame(modes, others), frame(0, 0), frame(0, 0), frame(0, 0)];
        const louder = frames.map((of) => of.map((a) => a * amplitude(loudness)));
        const [a, b] = [voicesOf(TONES, frames, HELD)[0]!, voicesOf(TONES, louder, HELD)[0]!];
        expect(b.modes).toBeCloseTo(a.modes);
        expect(b.others).toBeCloseTo(a.others);
      },
    ),
  );
});

test('a mode with no partial of the note, and a note never held, have none', () => {
  const [none] = voicesOf(
    TONES.map((tone) => ({ ...tone, note: false })),
    [frame(0, 0), frame(0, 0)],
    { from: 0, to: 2 },
  );
  expect(none).toEqual({ modes: 0, others: 0 });
  expect(voicesOf(TONES, [frame(0, 0)], HELD)).toEqual([{ modes: 0, others: 0 }]);
});
