import type { Rule } from './rule';

/** Time, fingers and notes left out. */
export const TIME: readonly Rule[] = [
  {
    fault: 'rush',
    cause: 'The attacks come before the beat is there.',
    tries: { any: 'Two notches slower, and hear the beat inside before you play it.' },
    serves: 'subdivision-ladder',
    sure: 0.6,
  },
  {
    fault: 'drag',
    cause: 'The notes speak late, or the fingers wait.',
    tries: { any: 'Begin the air ahead of the beat so that the note is on it.' },
    serves: 'subdivision-ladder',
    sure: 0.55,
  },
  {
    fault: 'uneven',
    cause: 'Tongue and fingers do not meet.',
    tries: { any: 'The same row slurred first, then tongued on one note alone, then both.' },
    serves: 'subdivision-ladder',
    sure: 0.5,
  },
  {
    fault: 'wrong-note',
    cause: 'Fingers, not tone.',
    tries: { any: 'The place alone, two notches slower, looking at the hand that changes.' },
    serves: 'just-this-seam',
    sure: 0.7,
  },
  {
    fault: 'missed',
    cause: 'It was left out, or too soft to be told from the room.',
    tries: { any: 'The place once more, a little slower.' },
    serves: 'just-this-seam',
    sure: 0.4,
  },
  {
    fault: 'late',
    cause: 'The note waited for the air or the finger.',
    tries: { any: 'The place alone: breathe earlier, and let the note begin on the beat before it.' },
    serves: 'just-this-seam',
    sure: 0.5,
  },
  {
    fault: 'early',
    cause: 'The note before was left too soon.',
    tries: { any: 'Hold the note before to its end, then play the place again.' },
    serves: 'just-this-seam',
    sure: 0.5,
  },
];
