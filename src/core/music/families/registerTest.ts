import { defineFamily } from '../family';
import { count, note, tempo } from '../parameters';

export const registerTest = defineFamily({
  id: 'register-test',
  title: 'Register test note',
  section: 'seams',
  purposes: ['breath and air', 'the break'],
  what: 'A deliberately unstable fingering shows what air and lips do: a growl below means too little air speed or support, a squeak above means biting.',
  how: 'Loud and clear at first, then softer and softer. On clarinets: written G sharp 5 with thumb and register key and the first two fingers of each hand, the left third finger open. On another instrument, choose a note and an unstable fingering of your own.',
  listen: 'A growl below or a squeak above, and how soft you were when it came.',
  enough: 'Three times from loud to soft: it is a test, not a sound to practise.',
  measured: 'Undertones and squeaks, and at what level they come.',
  differ: 'how much may move from register to register.',
  specs: {
    note: note('Note'),
    times: count('Times', 1, 6),
    beats: count('Each', 4, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['register-test'], feeds: { map: false, seams: false, trends: true } },
  fixed: () => ({ longestSeconds: 240 }),
  defaults: (instrument) => ({
    note: instrument.testNote ?? instrument.registers[1]?.low ?? instrument.home,
    times: 3,
    beats: 8,
    tempo: 60,
  }),
  write(writer, { note: written, times, beats }, { testNote }) {
    // On other instruments the fingering is the player's own, and nothing is known of it.
    const fingering = written === testNote ? { label: 'test fingering', hand: 'test' } : {};
    for (let i = 0; i < times; i++) {
      writer.setDynamic('f');
      writer.note(written, beats, { hairpin: 'fade', ...fingering, role: 'test' });
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});
