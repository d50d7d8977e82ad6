import { Random } from '@/core/base';
import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, range, tempo } from '../parameters';
import { stepwise } from './rows';

const QUIET = 'Drones on headphones: volume low.';

const INTERVALS = [
  ['octave', 'octave'],
  ['fifth', 'fifth'],
  ['fourth', 'fourth'],
  ['major-third', 'major third'],
  ['minor-third', 'minor third'],
  ['major-sixth', 'major sixth'],
  ['seventh', 'seventh'],
  ['all', 'all of them'],
] as const;
const SEMITONES: Readonly<Record<string, number>> = {
  octave: 12,
  fifth: 7,
  fourth: 5,
  'major-third': 4,
  'minor-third': 3,
  'major-sixth': 9,
  seventh: 10,
};

export const droneWork = defineFamily({
  id: 'drone-work',
  title: 'Drone work',
  section: 'intonation',
  purposes: ['tuning'],
  what: 'Intervals against a held note: just ones, not the tuner’s.',
  how: 'Play the interval and slow the beats until they stand still. With a player or a piano instead of the drone, let it sound alone first.',
  measured: 'Cents from the just interval, and beats a second.',
  caution: QUIET,
  specs: {
    drone: note('Drone, as you would write it'),
    interval: choice('Interval', INTERVALS),
    below: flag('Below the drone'),
    partner: flag('A partner or a piano holds it'),
    beats: count('Hold', 4, 16, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'interval', 'steadiness'], feeds: { map: true, seams: false, trends: true } },
  fixed: ({ drone, partner }, instrument) => ({
    drone: partner ? [] : [drone + instrument.transposition],
    company: partner,
  }),
  defaults: (_instrument, _level, { low }) => ({
    drone: low,
    interval: 'fifth' as const,
    below: false,
    partner: false,
    beats: 8,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { drone, interval, below, beats }) {
    const sizes =
      interval === 'all' ? Object.entries(SEMITONES) : [[interval, SEMITONES[interval]!] as const];
    for (const [label, size] of sizes) {
      writer.note(writer.folded(drone + (below ? -size : size)), beats, { label });
      writer.breathe();
      writer.fillBar();
      writer.rest(2);
    }
  },
});

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
  counts: { measures: ['pitch', 'interval', 'steadiness'], feeds: { map: true, seams: false, trends: true } },
  fixed: ({ root, chord, part }, instrument) => ({
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

export const octaveCheck = defineFamily({
  id: 'octave-check',
  title: 'Octave check',
  section: 'intonation',
  purposes: ['tuning', 'the high notes'],
  what: 'Low note and octave, both on the tuner; above all the top before a concert.',
  how: 'Play the low note, then its octave, without correcting: it is the instrument that is looked at.',
  measured: 'Both pitches and the width of each octave.',
  specs: {
    range: range('Lower notes', 0),
    step: count('Every', 1, 7, 'semitones'),
    beats: count('Each', 2, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'interval'], feeds: { map: true, seams: false, trends: true } },
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high: Math.max(low, high - 12) },
    step: 2,
    beats: 3,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, step, beats }) {
    const rows = stepwise(low, high, step).filter((written) => writer.has(written + 12));
    for (const written of rows.length > 0 ? rows : [writer.low]) {
      writer.note(written, beats);
      writer.note(writer.folded(written + 12), beats);
      writer.fillBar();
      writer.breathe();
    }
  },
});

export const blindTuning = defineFamily({
  id: 'blind-tuning',
  title: 'Blind tuning',
  section: 'intonation',
  purposes: ['tuning'],
  what: 'Which way do you lean when nothing shows you?',
  how: 'Hear or think the note, play it with the reading hidden, then look. It is a habit to know, not a score.',
  measured: 'Signed error of each note; the habit per note over time.',
  specs: {
    range: range('Within', 3),
    notes: count('Notes', 3, 20),
    seed: count('Order', 1, 99),
    beats: count('Each', 3, 8, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch'], feeds: { map: true, seams: false, trends: true } },
  fixed: () => ({ blind: true }),
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high },
    notes: 8,
    seed: 1,
    beats: 4,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { range: { low, high }, notes, seed, beats }, { step }) {
    const random = new Random(seed);
    const all = stepwise(low, high, step);
    let before = -1;
    for (let i = 0; i < notes; i++) {
      let written = before;
      while (written === before) written = all[Math.floor(random.next() * all.length)]!;
      before = written;
      writer.note(written, beats);
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});

export const tendencyScan = defineFamily({
  id: 'tendency-scan',
  title: 'Tendency scan',
  section: 'intonation',
  purposes: ['tuning'],
  what: 'Your instrument’s map: where every note sits, medium, soft and loud.',
  how: 'A slow chromatic scale without correcting. Let each note sit where it wants to.',
  measured: 'Centre and spread of every note at each loudness.',
  specs: {
    range: range('From, to', 2),
    loudness: choice('Loudness', [
      ['all', 'medium, soft, loud'],
      ['mf', 'medium'],
      ['p', 'soft'],
      ['f', 'loud'],
    ]),
    beats: count('Each', 2, 6, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'steadiness', 'level', 'colour'] },
  defaults: (_instrument, _level, { low, high }) => ({
    range: { low, high },
    loudness: 'all' as const,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, loudness, beats }, { step }) {
    for (const each of loudness === 'all' ? (['mf', 'p', 'f'] as const) : [loudness]) {
      writer.setDynamic(each);
      for (const written of stepwise(low, high, step)) writer.note(written, beats);
      writer.fillBar();
      writer.breathe();
      writer.rest(4);
    }
  },
});
