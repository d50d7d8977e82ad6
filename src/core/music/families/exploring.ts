import { defineFamily } from '../family';
import { GLIDE } from '../glides';
import { choice, count, dynamic, model, note, tempo } from '../parameters';

/** Exploring has its own verdict and never changes what is remembered of a note. */
const EXPLORING = {
  feeds: { map: false, seams: false, trends: false },
  events: [] as never[],
  exploring: true,
};

export const breathSweep = defineFamily({
  id: 'breath-sweep',
  title: 'Breath sweep',
  section: 'sound',
  purposes: ['breath and air', 'sameness of tone', 'tuning'],
  what: 'Finds the breath at which a note rings most, and how far that is from the breath at which it is in tune.',
  how: 'Blow from too little to too much and back, slowly. Then the octaves; then between them, first the fingers and then the breath; then both together, straight to the remembered breath; then five notes; then a tune. On recorders also the head alone and without the foot: three tubes, three breaths.',
  measured: 'The level that rings, the level that is in tune, the gap between them; up and down apart.',
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
  counts: { ...EXPLORING, measures: ['pitch', 'level', 'colour', 'window'] },
  defaults: (instrument) => ({
    note: instrument.home,
    stage: 'one' as const,
    tube: 'whole' as const,
    beats: 8,
    tempo: 60,
  }),
  write(writer, { note: written, stage, tube, beats }) {
    const octave = writer.has(written + 12) ? written + 12 : written - 12;
    const sweep = (at: number) => {
      writer.setDynamic('pp');
      writer.note(at, 2 * beats, {
        hairpin: 'swell',
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
      const row = [0, 2, 4, 5, 7].map((up) => writer.folded(written + up));
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

export const edgeHold = defineFamily({
  id: 'edge-hold',
  title: 'Edge hold',
  section: 'sound',
  purposes: ['the low notes', 'the high notes', 'breath and air'],
  what: 'Presses the lowest note towards its breaking point and stays just short of it; overtones grow. The highest notes, held steady, train the low ones.',
  how: 'Let the note grow until it is about to break, and stay there. If it breaks, you have found the edge: begin again just below.',
  measured: 'How loud the edge is, how rich, and how long you stay.',
  caution: 'Short doses. Numb, dizzy or sore: stop. Loud: protect your ears in a small room.',
  specs: {
    note: note('Note'),
    times: count('Times', 1, 6),
    beats: count('Each', 4, 16, 'beats'),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['level', 'colour', 'steadiness'] },
  fixed: () => ({ longestSeconds: 240 }),
  defaults: (_instrument, _level, { bottom }) => ({ note: bottom.low, times: 3, beats: 8, tempo: 60 }),
  write(writer, { note: written, times, beats }) {
    for (let i = 0; i < times; i++) {
      writer.setDynamic('mf');
      writer.note(written, beats / 2, { hairpin: 'grow' });
      writer.setDynamic('ff');
      writer.slur(written, beats / 2, { label: 'stay' });
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});

export const bends = defineFamily({
  id: 'bends',
  title: 'Note bends',
  section: 'sound',
  purposes: ['flexibility', 'tuning'],
  what: 'How far each means alone moves the pitch, and whether the tone survives.',
  how: 'From a plain note, down and back, up and back, by one means alone: angle, lips, jaw or head. Then all together. End on a centred plain note.',
  measured: 'Cents down and up, evenness of the glide, level lost, whether it broke.',
  specs: {
    note: note('Note'),
    means: choice('By', [
      ['angle', 'rolling or angle'],
      ['lips', 'lips'],
      ['jaw', 'jaw'],
      ['head', 'head'],
      ['all', 'all together'],
    ]),
    beats: count('Each glide', 2, 8, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['bend', 'level'] },
  defaults: (instrument) => ({
    note: instrument.home,
    means: 'angle' as const,
    beats: 4,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { note: written, beats }) {
    const parts = ['plain', GLIDE.down, GLIDE.backUp, GLIDE.up, GLIDE.backDown, 'plain'];
    parts.forEach((label, i) => {
      writer.note(written, beats, { label, attack: i === 0 || i === 3 || i === 5 ? 'tongued' : 'none' });
      if (i === 2 || i === 4) writer.breathe();
    });
  },
});

const PAIRS = [
  ['voice', 'humming along / plain'],
  ['double-lip', 'both lips over / usual'],
  ['whisper', 'whisper of an upper partial / full'],
  ['tongue', 'tongue high / tongue low'],
  ['angle', 'one angle / another'],
  ['reeds', 'one reed / another'],
  ['headjoints', 'one headjoint / another'],
] as const;

export const comparison = defineFamily({
  id: 'comparison',
  title: 'Comparison',
  section: 'sound',
  purposes: ['sameness of tone', 'flexibility'],
  what: 'The same figure under two conditions, in turn, to find out whether anything changes.',
  how: 'Play the figure under the first condition, then under the second, and again. With the voice: it takes its starting note from the figure and changes octave where it runs out; the plain repeat is what counts. With both lips over the teeth the instrument rests on a knee or a strap.',
  measured: 'The difference of the medians for each measure, and whether it is more than chance.',
  caution:
    'Both lips over the teeth: three minutes at most, it is hard on the lip; the instrument on a knee or a strap. The block ends by itself. Do not share reeds or mouthpieces uncleaned.',
  specs: {
    from: note('First note'),
    pair: choice('Conditions', PAIRS),
    rounds: count('Rounds', 2, 6),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['pitch', 'level', 'colour', 'seam'] },
  fixed: ({ pair }) => ({ company: pair === 'voice', longestSeconds: pair === 'double-lip' ? 180 : null }),
  defaults: (instrument) => ({
    from: instrument.home,
    pair: 'voice' as const,
    rounds: 3,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { from, rounds, beats, pair }) {
    const row = [0, 2, 4, 2, 0].map((up) => writer.folded(from + up));
    const names = (PAIRS.find(([id]) => id === pair) ?? PAIRS[0])[1].split(' / ');
    for (let i = 0; i < 2 * rounds; i++) {
      writer.slurred(row, beats, { label: names[i % 2] ?? null });
      writer.breathe();
      writer.fillBar(true);
    }
  },
});

export const angleSweep = defineFamily({
  id: 'angle-sweep',
  title: 'Angle sweep',
  section: 'air',
  purposes: ['sameness of tone', 'the low notes'],
  what: 'Where is a low note richest and still in tune?',
  how: 'Hold a low note and move the angle of the stream slowly, keeping the pitch. Stay where it is richest.',
  measured: 'Richness and air along the way, and how well the pitch stayed.',
  specs: {
    note: note('Low note'),
    beats: count('Each way', 4, 16, 'beats'),
    times: count('Times', 1, 4),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['pitch', 'colour'] },
  defaults: (_instrument, _level, { bottom }) => ({ note: bottom.low, beats: 8, times: 2, tempo: 60 }),
  write(writer, { note: written, beats, times }) {
    for (let i = 0; i < times; i++) {
      writer.note(written, beats, { label: 'one way' });
      writer.slur(written, beats, { label: 'and back' });
      writer.breathe();
    }
    writer.note(written, 8, { label: 'richest' });
  },
});

export const colours = defineFamily({
  id: 'colours',
  title: 'Colours on purpose',
  section: 'air',
  purposes: ['flexibility', 'sameness of tone'],
  what: 'How far apart can you set two colours of one note, and does the pitch stay?',
  how: 'The same note dark and clear, covered and open, soft and strong; or a low note made to carry by colour instead of level.',
  measured: 'Distance between the two colours, the pitch between them, the level.',
  specs: {
    note: note('Note'),
    pair: choice('Colours', [
      ['dark / clear', 'dark and clear'],
      ['covered / open', 'covered and open'],
      ['soft / strong', 'soft and strong, contrasting'],
      ['plain / carrying', 'plain and carrying'],
    ]),
    rounds: count('Rounds', 2, 6),
    beats: count('Each', 2, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['pitch', 'colour', 'level'] },
  defaults: (instrument) => ({
    note: instrument.home,
    pair: 'dark / clear' as const,
    rounds: 3,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { note: written, pair, rounds, beats }) {
    const names = pair.split(' / ');
    for (let i = 0; i < 2 * rounds; i++) {
      if (pair === 'soft / strong') writer.setDynamic(i % 2 === 0 ? 'p' : 'f');
      writer.note(written, beats, { label: names[i % 2] ?? null });
      if (i % 2 === 1) writer.breathe();
    }
  },
});

export const towardModel = defineFamily({
  id: 'toward-model',
  title: 'Towards a model',
  section: 'air',
  purposes: ['sameness of tone', 'music'],
  what: 'A recording of a sound you admire is the reference for your colour.',
  how: 'Choose the recording and the note in it. Listen to it, then play the note, listening; then again.',
  measured: 'Distance of your colour from the model’s, and in what.',
  specs: {
    note: note('Note'),
    model: model('Model'),
    times: count('Times', 1, 8),
    beats: count('Each', 4, 12, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['colour', 'pitch', 'sameness'] },
  vibrato: 'free',
  defaults: (instrument) => ({
    note: instrument.home,
    model: null,
    times: 4,
    beats: 8,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { note: written, times, beats }) {
    for (let i = 0; i < times; i++) {
      writer.note(written, beats);
      writer.fillBar();
      writer.rest(4);
    }
  },
});
