import { defineFamily } from '../family';
import { count, flag, note, tempo } from '../parameters';

export const freePlaying = defineFamily({
  id: 'free-playing',
  title: 'Free playing',
  section: 'prepare',
  purposes: ['warming up', 'music', 'tuning'],
  what: 'Whatever you like: a warm-up, a piece, an improvisation. Nothing is asked; all of it is heard.',
  how: 'Press Begin and play. The note you are on stands large, with where it lies. Stop when you are done, and see what you played, note by note. Vibrato and bends are yours.',
  listen: 'Whatever you like. Afterwards, see which notes leaned and which slurs cracked.',
  enough: 'Whenever you like: nothing is asked.',
  measured:
    'Where each note lay and for how long, the slurs over the breaks, what cracked. It fills the map.',
  vibrato: 'free',
  specs: {
    minutes: count('At most', 2, 60, 'min'),
    drone: flag('Over a drone'),
    droneNote: note('The drone’s note'),
    tempo: tempo(),
  },
  counts: {
    measures: ['played', 'seam', 'pitch', 'steadiness', 'air'],
    events: ['break', 'blip', 'squeak', 'undertone', 'gap', 'late-speech'],
  },
  // Whether it sounds at first is what the flag says; its key is at hand all along.
  fixed: ({ minutes, droneNote }, instrument) => ({
    free: true,
    longestSeconds: 60 * minutes,
    drone: [droneNote + instrument.transposition],
  }),
  defaults: (instrument) => ({ minutes: 20, drone: false, droneNote: instrument.home, tempo: null }),
  write: () => undefined,
});
