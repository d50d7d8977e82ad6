import { JAW, LEAP, LOW_AIR, REED, TONGUE } from './disputes';
import type { Rule } from './rule';

const FLICK = 'Some flick the key, some hold it and pay with another tone. Try both, and listen.';

/** A higher or lower mode than asked. */
export const MODES: readonly Rule[] = [
  // A higher mode than asked.
  {
    fault: 'break-up',
    kinds: ['edge'],
    cause: 'Air too fast or squeezed for the note, or the lips too close.',
    tries: {
      air: 'Let the same amount of air out more slowly: warm air, not cold.',
      support: 'Keep the push low in the body and let go above the waist.',
      shape: 'Open the teeth by a hair and drop the tongue; turn out a little.',
    },
    serves: 'edge-hold',
    disagreement: LOW_AIR,
    sure: 0.7,
  },
  {
    fault: 'break-up',
    kinds: ['edge'],
    where: 'low',
    cause:
      'Low notes break up when the air is squeezed through lips that are too close, or the tongue is high.',
    tries: {
      air: 'Blow slower and wider, as if to warm a cold window.',
      support: 'Less push: let the note begin by itself and lean on it only then.',
      shape: 'Tongue down, more room between the teeth, turn out a little.',
    },
    serves: 'low-chromatics',
    disagreement: TONGUE,
    sure: 0.75,
  },
  {
    fault: 'break-up',
    kinds: ['ducted'],
    cause: 'Too much breath for the note, or a hole that a finger does not quite close.',
    tries: {
      any: 'Take the breath back until the note just holds; then lay the fingers of the note flat over their holes.',
    },
    serves: 'breath-sweep',
    sure: 0.7,
  },
  {
    fault: 'break-up',
    kinds: ['ducted'],
    hand: 'thumb',
    cause: 'Too much breath for the note, or the thumb opening is too wide.',
    tries: {
      any: 'Take the breath back until the note just holds; then check that the thumb opens by no more than a hair.',
    },
    serves: 'breath-sweep',
    sure: 0.75,
  },
  {
    fault: 'break-up',
    kinds: REED,
    cause: 'Biting, pressure rising, or the shape of a high note kept for a low one.',
    tries: {
      air: 'Keep the air and release the bite: the jaw does less than you think.',
      support: 'Steady the push below and let the lips go.',
      shape: 'Form the low note before you move to it: open throat, loose corners.',
    },
    serves: 'octave-slurs',
    disagreement: JAW,
    sure: 0.65,
  },
  // A lower mode than asked.
  {
    fault: 'break-down',
    kinds: ['edge'],
    cause: 'The speed of the air is not there yet when the note begins.',
    tries: {
      air: 'Begin the air before the note, already at its speed.',
      support: 'Have the push ready before the tongue lets go.',
      shape: 'Bring lips and jaw forward a little before the leap, not during it.',
    },
    serves: 'harmonic-climb',
    disagreement: LEAP,
    sure: 0.7,
  },
  {
    fault: 'break-down',
    kinds: ['ducted'],
    cause: 'Too little breath for the upper note.',
    tries: { any: 'Quicken the breath on the way up, before the fingers move, and keep it there.' },
    serves: 'octave-slurs',
    sure: 0.65,
  },
  {
    fault: 'break-down',
    kinds: ['ducted'],
    hand: 'thumb',
    cause: 'Too little breath, or the thumb opening closed.',
    tries: { any: 'Quicken the breath on the way up, and roll the thumb open before the finger moves.' },
    serves: 'octave-slurs',
    sure: 0.7,
  },
  {
    fault: 'break-down',
    instruments: ['bassoon', 'contrabassoon'],
    cause: 'The flick was missed or came late.',
    tries: {
      any: 'Touch the vent key with the thumb exactly when the note begins, and leave the low note’s fingers down until the thumb has gone.',
    },
    serves: 'vent-flick',
    disagreement: FLICK,
    sure: 0.75,
  },
  {
    fault: 'break-down',
    instruments: ['clarinet', 'bass-clarinet', 'alto-clarinet'],
    cause: 'The register key came late, or the air was not fast enough for the higher mode.',
    tries: {
      air: 'Faster air before the thumb moves.',
      support: 'Hold the push through the change; do not wait for the note.',
      shape: 'Tongue high at the back, and the thumb rolls rather than lifts.',
    },
    serves: 'just-this-seam',
    disagreement: TONGUE,
    sure: 0.65,
  },
  {
    fault: 'break-down',
    kinds: REED,
    cause: 'Air speed or pressure not there yet at the start of the note.',
    tries: {
      air: 'Let the air arrive before the note does.',
      support: 'Set the push first, then let the tongue go.',
      shape: 'Firm the corners a moment before the leap, without biting.',
    },
    serves: 'octave-slurs',
    disagreement: LEAP,
    sure: 0.6,
  },
  // A mode that was climbed for and did not come.
  {
    fault: 'mode-low',
    cause: 'The mode spoke on less air than it needs.',
    tries: {
      air: 'Once it speaks, quicken the air until it stops rising: there it rests.',
      support: 'Push for the mode, and keep the push after it has caught.',
      shape: 'A smaller opening; do not drop the jaw for the note below.',
    },
    serves: 'harmonic-climb',
    sure: 0.5,
  },
  {
    fault: 'mode-high',
    cause: 'More push or grip than the mode needs.',
    tries: { any: 'Let the mode sink until it is about to fall, and stay just over that.' },
    serves: 'harmonic-climb',
    sure: 0.5,
  },
  {
    fault: 'mode-missed',
    cause: 'The speed of the air was not that of the mode.',
    tries: {
      air: 'Quicken the air by a hair at a time, from the mode below, until the next one catches.',
      support: 'A little more push for each mode, and none in the throat.',
      shape: 'A smaller opening for each mode, the fingers as they are.',
    },
    serves: 'octave-slurs',
    disagreement: LEAP,
    sure: 0.6,
  },
];
