import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, tempo } from '../parameters';
import { QUIET } from './cautions';

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
  how: 'Play the interval over the held note. Where it is not in tune the two beat, a waver in the sound: move your pitch until it slows and stands still. With a player or a piano instead of the drone, let it sound alone first.',
  listen: 'The waver between the two sounds: the faster it is, the farther off you are.',
  enough: 'When it stands still at once, without searching, three times.',
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
  counts: { measures: ['just', 'steadiness'], feeds: { map: true, seams: false, trends: true } },
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
