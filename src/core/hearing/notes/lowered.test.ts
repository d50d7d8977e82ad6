import { findInstrument, listeningRange } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { hearNotes } from '.';

const RATE = 48_000;
const SOPRANO = findInstrument('sax-soprano')!;
/** Half a second of silence, and a tone of two seconds. @param partials their levels, dB, by multiples of f0. */
function heard(f0: number, partials: Readonly<Record<number, (t: number) => number>>) {
  const audio = new Float32Array(3 * RATE);
  for (let i = RATE / 2; i < 2.5 * RATE; i++) {
    const t = i / RATE - 0.5;
    const edge = Math.min(1, t / 0.03, (2 - t) / 0.05);
    for (const [k, dB] of Object.entries(partials))
      audio[i]! += 0.1 * edge * 10 ** (dB(t) / 20) * Math.sin(2 * Math.PI * Number(k) * f0 * t + Number(k));
  }
  const listener = new Listener(RATE, listeningRange(SOPRANO));
  listener.push(audio);
  return hearNotes(listener.finish(), SOPRANO);
}
const always = (dB: number) => () => dB;

test('a tone whose second partial stands far over all others is no octave', () => {
  const { notes, events } = heard(831, { 1: always(-34), 2: always(0), 3: always(-14), 4: always(-30) });
  expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([80]);
  expect(events).toEqual([]);
});

test('a fundamental that goes for a moment does not break the note', () => {
  const gone = (t: number) => (t > 0.8 && t < 1.1 ? -36 : -6);
  const { notes } = heard(831, { 1: gone, 2: always(0), 3: always(-15), 4: always(-30) });
  expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([80]);
});

test('the octave above stays what it is over an undertone, which is alone', () => {
  const { notes } = heard(831, { 1: always(-18), 2: always(0), 4: always(-12), 6: always(-20) });
  expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([92]);
});
