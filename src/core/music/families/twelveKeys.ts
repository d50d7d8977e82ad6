import { defineFamily } from '../family';
import { choice, count, dynamic, flag, strictTempo } from '../parameters';
import { CIRCLE_OF_FOURTHS, KEY_OPTIONS, keyTitle, semitonesOf, signatureOf, usualKey } from './rows';
import { tonicOf } from '@/core/tuning';

/** Degrees and beats; a third number is a note outside of the scale, in semitones over the tonic. */
const PHRASES: Readonly<Record<string, readonly (readonly [number, number, number?])[]>> = {
  turn: [
    [1, 1],
    [2, 0.5],
    [3, 0.5],
    [5, 1],
    [3, 0.5],
    [2, 0.5],
    [1, 2],
    [0, 1],
    [1, 1],
  ],
  leap: [
    [1, 1],
    [5, 1],
    [8, 1],
    [7, 0.5],
    [6, 0.5],
    [5, 1],
    [3, 1],
    [1, 2],
  ],
  sigh: [
    [5, 1.5],
    [6, 0.5, 8],
    [5, 1],
    [3, 1],
    [4, 1.5],
    [3, 0.5],
    [2, 1],
    [1, 1],
  ],
};

export const twelveKeys = defineFamily({
  id: 'twelve-keys',
  title: 'A phrase in twelve keys',
  section: 'rhythm',
  purposes: ['music', 'flexibility'],
  what: 'A short phrase round the circle of fourths, so that every break is met from every side.',
  how: 'Play the phrase, then the same in the next key; hear that key before you play it. When you know the phrase, have only its first key shown and play the others by ear.',
  listen: 'Is it the same tune in every key, or does one key limp?',
  enough: 'Once round. Begin with the keys that limped the next time.',
  measured: 'Seams met, pitch in every key, time.',
  vibrato: 'free',
  specs: {
    phrase: choice('Phrase', [
      ['turn', 'a turn'],
      ['leap', 'a leap'],
      ['sigh', 'a sigh'],
    ]),
    from: choice('First key', KEY_OPTIONS),
    scale: choice('Scale', [
      ['major', 'major'],
      ['harmonic-minor', 'minor'],
    ]),
    slurred: flag('Slurred'),
    notes: choice('Notes on the stand', [
      ['all', 'in every key'],
      ['first', 'in the first key only'],
    ]),
    keys: count('Keys', 2, 12),
    dynamic: dynamic(),
    tempo: strictTempo(40, 160),
  },
  counts: { measures: ['seam', 'rhythm', 'pitch'], notches: 'clean' },
  fixed: ({ notes }) => ({ byEar: notes === 'first' }),
  defaults: (instrument) => ({
    phrase: 'turn' as const,
    from: usualKey(instrument),
    scale: 'major' as const,
    slurred: true,
    notes: 'all' as const,
    // Further round the circle an instrument of few keys has half-holes only.
    keys: instrument.plainKeys?.length ?? 12,
    dynamic: 'mf' as const,
    tempo: 72,
  }),
  write(writer, { phrase, from, scale, slurred, keys }, instrument) {
    const first = CIRCLE_OF_FOURTHS.indexOf(Number(from) as (typeof CIRCLE_OF_FOURTHS)[number]);
    const row = PHRASES[phrase]!.map(([degree, beats, outside]) => ({
      up: outside ?? semitonesOf(degree, scale),
      beats,
    }));
    const lowest = Math.min(...row.map(({ up }) => up));
    const highest = Math.max(...row.map(({ up }) => up));
    for (let i = 0; i < keys; i++) {
      const key = CIRCLE_OF_FOURTHS[(first + i) % 12]!;
      // As near to the home note as all of it fits; its line is not broken.
      const tonic = Array.from({ length: 11 }, (_, octave) => tonicOf(key) + 12 * octave)
        .filter((each) => each + lowest >= writer.low && each + highest <= writer.high)
        .sort((a, b) => Math.abs(a - instrument.home) - Math.abs(b - instrument.home))[0];
      if (tonic === undefined) continue;
      writer.setKey(signatureOf(key, scale));
      row.forEach(({ up, beats }, k) =>
        writer.note(tonic + up, beats, {
          attack: slurred && k > 0 ? 'none' : 'tongued',
          label: k === 0 ? keyTitle(key, scale) : null,
        }),
      );
      writer.breathe();
      writer.fillBar(true);
    }
  },
});
