import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { choice, count, strictTempo } from '../parameters';
import { type Writer } from '../writer';

const DRILLS = [
  ['slow-fast', 'slow breath growing fast, and back'],
  ['much-little', 'much and little at one speed'],
  ['bursts', 'bursts in rhythm'],
  ['paper', 'a strip of paper kept away'],
  ['palm', 'the stream over the palm'],
] as const;

const WRITE: Readonly<Record<(typeof DRILLS)[number][0], (writer: Writer) => void>> = {
  'slow-fast': (writer) => {
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(6, { shape: 'out', from: 0.1, to: 1, text: 'Out: slow, growing fast' });
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(6, { shape: 'out', from: 1, to: 0.1, text: 'Out: fast, growing slow' });
  },
  'much-little': (writer) => {
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(5, { shape: 'out', from: 0.8, to: 0.8, text: 'Much air, this speed' });
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(7, { shape: 'out', from: 0.25, to: 0.25, text: 'Little air, the same speed' });
  },
  bursts: (writer) => {
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    for (const [beats, strength] of [
      [1, 1],
      [1, 0.7],
      [0.5, 0.7],
      [0.5, 0.5],
      [0.5, 0.5],
      [0.5, 0.5],
      [2, 0.8],
    ] as const)
      writer.picture(beats, {
        shape: 'burst',
        from: strength,
        to: 0.1,
        text: 'A hand on the belly feels the push',
      });
  },
  paper: (writer) => {
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(8, {
      shape: 'out',
      from: 0.6,
      to: 0.6,
      text: 'The strip stays away from the mouth, still',
    });
    writer.picture(2, { shape: 'rest', from: 0, to: 0, text: 'Let it hang' });
  },
  palm: (writer) => {
    writer.picture(2, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.picture(4, {
      shape: 'out',
      from: 0.5,
      to: 0.5,
      text: 'From the wrist to the fingertips, by the lower lip',
    });
    writer.picture(4, { shape: 'out', from: 0.5, to: 0.5, text: 'And back to the wrist' });
  },
};

/** Which fault each drill serves. */
const SERVES: Readonly<Record<(typeof DRILLS)[number][0], string>> = {
  'slow-fast': 'low blips and late speech',
  'much-little': 'going flat when fading',
  bursts: 'holes in slurs',
  paper: 'wavering holds',
  palm: 'thin or covered low notes',
};

export const airDrills = defineFamily({
  id: 'air-drills',
  title: 'Air without the instrument',
  section: 'air',
  purposes: ['breath and air', 'warming up'],
  what: `Breath alone, with a picture to follow. Each drill serves a fault: ${DRILLS.map(([id, name]) => `${name} for ${SERVES[id]}`).join('; ')}.`,
  how: 'Put the instrument down. Follow the picture with your breath; the hands are free.',
  listen: 'The breath alone: one even stream, with no catch in it.',
  enough: 'A minute of each. Dizzy: at once.',
  measured: 'Nothing: a microphone hears breath noise at best, and no figure is claimed.',
  caution: 'Dizzy: stop at once and breathe normally.',
  specs: { drill: choice('Drill', DRILLS), rounds: count('Rounds', 1, 8), tempo: strictTempo(40, 80) },
  counts: { ...EXPLORING, measures: [] },
  fixed: () => ({ longestSeconds: 180 }),
  defaults: () => ({ drill: 'slow-fast' as const, rounds: 3, tempo: 60 }),
  write(writer, { drill, rounds }) {
    for (let i = 0; i < rounds; i++) {
      WRITE[drill](writer);
      writer.fillBar();
      writer.picture(4, { shape: 'rest', from: 0, to: 0, text: 'Breathe normally' });
    }
  },
});
