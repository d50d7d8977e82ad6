import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { choice, count, note, tempo } from '../parameters';
import { scaleFrom } from './walks';

/** Whether the breath itself is swept, or only gone to. */
const sweeps = (stage: string, tube: string) => stage === 'one' || stage === 'octaves' || tube !== 'whole';

export const breathSweep = defineFamily({
  id: 'breath-sweep',
  title: 'Breath sweep',
  section: 'sound',
  purposes: ['breath and air', 'sameness of tone', 'tuning'],
  what: 'Finds the breath at which a note rings most, and how far that is from the breath at which it is in tune.',
  how: 'Blow from too little to too much and back, slowly. Then the octaves; then between them, first the fingers and then the breath; then both together, straight to the remembered breath; then five notes; then a tune. On recorders also the head alone and without the foot: three tubes, three breaths.',
  listen: 'Two places: where the note rings most, and where it is in tune. They need not be the same.',
  enough: 'When you meet the ringing breath three times without searching for it.',
  measured: 'The level that rings, the level that is in tune, the gap between them; up and down apart.',
  differ: 'what drives the breath: its amount and speed, or the body’s support.',
  specs: {
    note: note('Note'),
    stage: choice('Stage', [
      ['one', 'one note'],
      ['octaves', 'its octaves'],
      ['fingers', 'fingers, then breath'],
      ['straight', 'straight there'],
      ['five', 'five notes'],
    ]),
    tube: choice('Tube', [
      ['whole', 'whole'],
      ['head', 'head alone'],
      ['no-foot', 'without the foot'],
    ]),
    beats: count('Each way', 4, 16, 'beats'),
    tempo: tempo(),
  },
  counts: ({ stage, tube }) =>
    sweeps(stage, tube)
      ? { ...EXPLORING, measures: ['sweep'] }
      : { feeds: EXPLORING.feeds, measures: ['seam', 'pitch', 'level'] },
  defaults: (instrument) => ({
    note: instrument.home,
    stage: 'one' as const,
    tube: 'whole' as const,
    beats: 8,
    tempo: 60,
  }),
  write(writer, { note: written, stage, tube, beats }, instrument) {
    const octave = writer.has(written + 12) ? written + 12 : written - 12;
    const sweep = (at: number) => {
      writer.setDynamic('pp');
      writer.note(at, 2 * beats, {
        hairpin: 'swell',
        role: 'sweep',
        attack: 'breath',
        label: tube === 'whole' ? null : tube,
      });
      writer.breathe();
      writer.fillBar();
    };
    if (stage === 'one' || tube !== 'whole' || !writer.has(octave)) sweep(written);
    else if (stage === 'octaves') [written, octave].forEach(sweep);
    else if (stage === 'five') {
      writer.setDynamic('mf');
      const row = scaleFrom(instrument, 'usual', written, 5).map((each) => writer.folded(each));
      writer.slurred([...row, ...row.slice(0, -1).reverse()], Math.max(1, beats >> 2));
    } else {
      writer.setDynamic('mf');
      for (let i = 0; i < 3; i++) {
        writer.note(written, beats);
        writer.slur(octave, beats, { label: stage === 'fingers' ? 'fingers, then breath' : 'straight' });
        writer.slur(written, beats);
        writer.breathe();
      }
    }
  },
});
