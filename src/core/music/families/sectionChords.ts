import { defineFamily } from '../family';
import { choice, count, note, tempo } from '../parameters';
import { QUIET } from './cautions';

const CHORDS: Readonly<Record<string, readonly number[]>> = {
  major: [0, 4, 7],
  minor: [0, 3, 7],
  seventh: [0, 4, 7, 10],
};

export const sectionChords = defineFamily({
  id: 'section-chords',
  title: 'Section chords',
  section: 'intonation',
  purposes: ['tuning', 'music'],
  what: 'Your place in a chord: the third lies lower than on the tuner, the fifth a little higher.',
  how: 'The others sound as a drone. Take the root, the third, the fifth in turn and let the chord ring.',
  listen: 'The chord as one sound. The third is right where the roughness goes, lower than you expect.',
  enough: 'Once in each place, with the chord at rest.',
  measured: 'Cents from the just place in the chord.',
  caution: QUIET,
  specs: {
    root: note('Root, as you would write it'),
    chord: choice('Chord', [
      ['major', 'major'],
      ['minor', 'minor'],
      ['seventh', 'with a seventh'],
    ]),
    part: choice('Your part', [
      ['0', 'root'],
      ['1', 'third'],
      ['2', 'fifth'],
      ['all', 'each in turn'],
    ]),
    beats: count('Hold', 4, 16, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['just', 'steadiness'], feeds: { map: true, seams: false, trends: true } },
  fixed: ({ root, chord, part }, instrument) => ({
    droneLeavesOut: part === 'all',
    drone: CHORDS[chord]!.filter((_, i) => part === 'all' || i !== Number(part)).map(
      (up) => root + up + instrument.transposition,
    ),
  }),
  defaults: (instrument) => ({
    root: instrument.home,
    chord: 'major' as const,
    part: 'all' as const,
    beats: 8,
    tempo: null,
  }),
  write(writer, { root, chord, part, beats }) {
    CHORDS[chord]!.forEach((up, i) => {
      if (part !== 'all' && i !== Number(part)) return;
      writer.note(writer.folded(root + up), beats, {
        label: ['root', 'third', 'fifth', 'seventh'][i] ?? null,
      });
      writer.breathe();
      writer.fillBar();
    });
  },
});
