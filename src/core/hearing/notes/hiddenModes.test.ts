import { findInstrument } from '@/core/instruments';
import { QUICK_PARTIALS, type Frames } from '@/core/hearing/signal';
import { hearNotes } from '.';
import { hiddenModes } from './hiddenModes';
import type { Plateau } from './plateaus';
import { ringingFrames, type Tone } from './ringing.testing';

const BASSOON = findInstrument('bassoon')!;
const OWN = [-12, -3, 0, -6, -9, -14, -18];
/** As loud as a whole. */
const OCTAVE = [0.5, -2.5, -10.5];
const FIRST: Tone = { midi: 57, from: 0.5, to: 1, partials: [0, -6, -12] };

const heard = (tones: readonly Tone[]) => {
  const { notes, events } = hearNotes(ringingFrames([FIRST, ...tones], BASSOON), BASSOON);
  return {
    notes: notes.slice(1).map(({ soundingMidi }) => soundingMidi),
    events: events.map(({ kind, soundingMidi }) => `${kind} ${soundingMidi}`),
  };
};

test('an octave that takes a low note’s place is a break in it, though the echo keeps its pitch', () => {
  for (const midi of [45, 50, 52])
    expect(
      heard([
        { midi, from: 1.5, to: 2.1, partials: OWN },
        { midi: midi + 12, from: 2.1, to: 2.2, partials: OCTAVE },
        { midi, from: 2.2, to: 2.8, partials: OWN },
      ]),
    ).toEqual({ notes: [midi], events: [`break ${midi + 12}`] });
});

test('where nothing but the tongue was between them, two notes are two', () => {
  expect(
    heard([
      { midi: 52, from: 1.5, to: 2.1, partials: OWN },
      { midi: 52, from: 2.17, to: 2.8, partials: OWN },
    ]),
  ).toEqual({ notes: [52, 52], events: [] });
});

describe('partials laid bare', () => {
  const COUNT = 200;
  const [FROM, TO] = [90, 110];
  /** A note of two hundred frames whose first partial falls for twenty of them, while the second sounds at a level. */
  function found(second: number, first = -14) {
    const quickPartials = new Float64Array(COUNT * QUICK_PARTIALS);
    for (let i = 0; i < COUNT; i++) {
      const within = i >= FROM && i < TO;
      [within ? first : 0, within ? second : -10, -16, -22].forEach((dB, k) => {
        quickPartials[i * QUICK_PARTIALS + k] = 0.1 * 10 ** (dB / 20);
      });
    }
    const newness = new Float64Array(COUNT).fill(0.05);
    for (const at of [FROM, TO]) newness[at] = 0.6;
    const frames = {
      hopSeconds: 0.005,
      quickPartials,
      newness,
      hopDb: new Float64Array(COUNT).fill(-30),
      settings: { spectrum: { window: 1024, decimation: 1 }, hop: 256 },
    } as unknown as Frames;
    const note: Plateau = { from: 0, to: COUNT, pitch: 60, joined: false };
    return hiddenModes(note, [72], frames).map(({ pitch }) => pitch);
  }

  it('are a mode where they grow as the others fall', () => {
    expect(found(-4)).toEqual([72]);
  });

  it('are the room’s where only the others fall: echoes cancelled them', () => {
    expect(found(-10)).toEqual([]);
    expect(found(-12)).toEqual([]);
  });
});
