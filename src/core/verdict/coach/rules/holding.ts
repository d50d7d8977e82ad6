import type { Rule } from './rule';

/** What happens while a note is held. */
export const HOLDING: readonly Rule[] = [
  {
    fault: 'vibrato',
    cause: 'Habit.',
    tries: { any: 'Hold a straight tone for four beats before every phrase today.' },
    serves: 'long-hold',
    sure: 0.6,
  },
  {
    fault: 'fading-hold',
    cause: 'The end of the breath.',
    tries: { any: 'A shorter hold, breathed lower. Stop when it wavers, not when the air is gone.' },
    serves: 'long-hold',
    sure: 0.7,
  },
  {
    fault: 'sinking',
    cause: 'The air slows as it runs out.',
    tries: {
      air: 'Keep the speed of the air to the end; let the amount go.',
      support: 'Push on when the breath is nearly out: that is where it counts.',
      shape: 'Close the opening a little as the breath goes.',
    },
    serves: 'long-hold',
    sure: 0.65,
  },
  {
    fault: 'unsteady',
    cause: 'The stream is held by the throat or the lips instead of the body.',
    tries: {
      air: 'Blow as at a candle an arm’s length away: the same flame all along.',
      support: 'Let the belly do the holding; a hand there feels it.',
      shape: 'Corners firm, the middle free.',
    },
    serves: 'air-drills',
    disagreement: 'Some push the belly outward to hold the air, some let it fall in.',
    sure: 0.5,
  },
  {
    fault: 'uneven-line',
    cause: 'The level moved in steps.',
    tries: {
      any: 'Count the beats of the line aloud once, giving each the same share; begin softer than you think.',
    },
    serves: 'swells',
    sure: 0.5,
  },
  {
    fault: 'rising',
    cause: 'Something tightens while the note lasts: lips, jaw or throat.',
    tries: {
      air: 'The same air to the end, and nothing helping it.',
      support: 'Let the push carry the end, and the face do nothing.',
      shape: 'Let the jaw hang a little more as the note goes on.',
    },
    serves: 'long-hold',
    sure: 0.5,
  },
  {
    fault: 'short-purity',
    cause: 'The tone moved before the breath was gone.',
    tries: { any: 'Stop when it wavers, breathe, and hold again: shorter and pure before longer.' },
    serves: 'long-hold',
    sure: 0.6,
  },
];
