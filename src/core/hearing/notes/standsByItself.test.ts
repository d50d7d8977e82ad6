import type { Decibels, Hertz, Seconds } from '@/core/base';
import { findInstrument, listeningRange } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { hearNotes } from '.';

const RATE = 48_000;
const SOPRANO = findInstrument('sax-soprano')!;
const LOWER: Hertz = 523.25;
/** Partials of the octave below a note: the odd ones are its own, the even ones are the note's too. */
type Partials = Readonly<Record<number, (t: Seconds) => Decibels>>;

/** Half a second of silence, in which another note may sound to the end, and a second of a tone. */
function heard(partials: Partials, before: Hertz | null = null) {
  const audio = new Float32Array(2 * RATE);
  for (let i = 0; before !== null && i < RATE / 2; i++) {
    const edge = Math.min(1, (0.5 - i / RATE) / 0.005);
    for (const k of [1, 2, 3])
      audio[i]! += (0.1 / k) * edge * Math.sin((2 * Math.PI * k * before * i) / RATE);
  }
  for (let i = RATE / 2; i < 1.5 * RATE; i++) {
    const t = i / RATE - 0.5;
    const edge = Math.min(1, t / 0.005, (1 - t) / 0.05);
    for (const [k, dB] of Object.entries(partials))
      audio[i]! +=
        0.1 * edge * 10 ** (dB(t) / 20) * Math.sin(2 * Math.PI * Number(k) * LOWER * t + Number(k));
  }
  const listener = new Listener(RATE, listeningRange(SOPRANO));
  listener.push(audio);
  return hearNotes(listener.finish(), SOPRANO);
}

/** A level that goes from one to another between two times, evenly. */
const glide = (from: Decibels, to: Decibels, start: Seconds, end: Seconds) => (t: Seconds) =>
  from + (to - from) * Math.max(0, Math.min(1, (t - start) / (end - start)));

/** The mode below comes before the note, at a level, and goes when the note comes. */
const modeFirst = (level: Decibels, until: Seconds, takes: Seconds): Partials => ({
  1: glide(level, -90, until, until + 3 * takes),
  2: glide(level - 4, 0, until, until + takes),
  3: glide(level - 8, -90, until, until + 3 * takes),
  4: glide(level - 12, -10, until, until + takes),
  6: glide(level - 20, -18, until, until + takes),
});

test('a mode that stood before the note is told of that note, however soon it gave way', () => {
  for (const until of [0.03, 0.06, 0.09]) {
    const { notes, events } = heard(modeFirst(-6, until, 0.004));
    expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([84]);
    expect(events.map(({ kind, soundingMidi, noteIndex }) => [kind, soundingMidi, noteIndex])).toEqual([
      ['blip', 72, 0],
    ]);
  }
});

test('a mode loud and long enough to be heard is told though it goes slowly', () => {
  const { events } = heard(modeFirst(-4, 0.07, 0.03));
  expect(events.map(({ kind, soundingMidi }) => [kind, soundingMidi])).toEqual([['blip', 72]]);
});

/** The note grows from its first moment, and the mode below is heard in it until it has. */
const grownOut = (level: Decibels, takes: Seconds): Partials => ({
  1: glide(level, -90, takes, 5 * takes),
  2: glide(-10, 0, 0, 1.5 * takes),
  3: glide(level - 4, -90, takes, 5 * takes),
  4: glide(-22, -10, 0, 1.5 * takes),
  6: glide(-32, -18, 0, 1.5 * takes),
});

test('a tone that grows out of its lower mode, as tones do, is not accused', () => {
  for (const level of [-12, -16, -22]) {
    const { notes, events } = heard(grownOut(level, 0.03));
    expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([84]);
    expect(events).toEqual([]);
  }
});

test('an upper partial that comes first is the note already', () => {
  const { notes, events } = heard({
    1: glide(-40, 0, 0.01, 0.05),
    2: glide(-14, -6, 0, 0.05),
    3: glide(-50, -12, 0.015, 0.06),
    4: glide(-30, -20, 0, 0.05),
  });
  expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([72]);
  expect(events).toEqual([]);
});

test('what does not stand by itself stays with the way from the note before, for the music to tell', () => {
  for (const until of [0.025, 0.035]) {
    const { notes, events, transitions } = heard(grownOut(-16, until), 932.33);
    expect(notes.map(({ soundingMidi }) => soundingMidi)).toEqual([82, 84]);
    expect(events.filter(({ kind }) => kind !== 'gap')).toEqual([]);
    expect(transitions.map(({ to, faintBlip }) => [to, faintBlip?.kind, faintBlip?.soundingMidi])).toEqual([
      [1, 'blip', 72],
    ]);
  }
});
