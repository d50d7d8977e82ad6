import { JAW, REED, TONGUE } from './disputes';
import type { Rule } from './rule';

/** Beginning late, and sounds that come beside the note. */
export const SPEAKING: readonly Rule[] = [
  {
    fault: 'late-speech',
    cause: 'The air was slow to come, or a finger does not quite cover.',
    tries: {
      any: 'Set the air moving before the tongue opens. If it is always the same note, look at its finger and pad.',
    },
    serves: 'low-chromatics',
    sure: 0.55,
  },
  {
    fault: 'late-speech',
    kinds: ['edge'],
    where: 'low',
    cause: 'Tongue or jaw high, or the hole covered too far.',
    tries: {
      air: 'Slow, wide air, already moving.',
      support: 'Begin from a gentle push, not from the tongue.',
      shape: 'Tongue low, jaw back, and turn out a little.',
    },
    serves: 'low-chromatics',
    disagreement: TONGUE,
    sure: 0.65,
  },
  {
    fault: 'late-speech',
    kinds: REED,
    where: 'low',
    cause: 'The lip holds the reed shut, or the air comes after the tongue.',
    tries: {
      air: 'More air at the very start, and wait for nothing.',
      support: 'Have the pressure up before the tongue leaves.',
      shape: 'Less lip on the reed; drop the jaw a little for the lowest notes.',
    },
    serves: 'low-chromatics',
    disagreement: JAW,
    sure: 0.6,
  },
  {
    fault: 'late-speech',
    kinds: REED,
    where: 'low',
    needs: 'several-takes',
    cause: 'The reed is hard or closed, or its tip heavy: other reeds spoke sooner here.',
    tries: { any: 'Play the same notes on an easier reed, and hold the two days beside each other.' },
    serves: 'low-chromatics',
    sure: 0.5,
  },
  {
    fault: 'undertone',
    cause: 'The air is too slow for the mode (most often), or the lips are slack.',
    tries: {
      air: 'Quicken the air without more of it.',
      support: 'Keep the push going while it gets softer: less air, not slower air.',
      shape: 'A rounder, firmer opening.',
    },
    serves: 'register-test',
    sure: 0.7,
  },
  {
    fault: 'undertone',
    kinds: ['single-reed'],
    where: 'high',
    cause: 'The jaw has let go and the air has not yet taken its place.',
    tries: {
      air: 'Quicker air for the top, before the jaw lets go.',
      support: 'More push from below at the top, the throat loose.',
      shape: 'A little more of the jaw under the reed, not against it.',
    },
    serves: 'altissimo-pairs',
    sure: 0.65,
  },
  {
    fault: 'squeak',
    kinds: REED,
    cause: 'Biting, or a finger or key that moved.',
    tries: {
      any: 'Release the bite and play the place slowly, watching the fingers. If it is always the same fingers, it is them.',
    },
    serves: 'just-this-seam',
    sure: 0.6,
  },
  {
    fault: 'squeak',
    kinds: ['ducted'],
    cause: 'A finger that leaves its hole open, or breath that comes in a burst.',
    tries: { any: 'Play the place slowly, and see that the fingers of the note lie flat over their holes.' },
    serves: 'just-this-seam',
    sure: 0.55,
  },
  {
    fault: 'squeak',
    kinds: ['ducted'],
    hand: 'thumb',
    cause: 'The thumb.',
    tries: { any: 'Open the thumb by a hair only, and keep it there.' },
    serves: 'just-this-seam',
    sure: 0.65,
  },
  {
    fault: 'squeak',
    cause: 'A finger, or a moment of pressed lips.',
    tries: { any: 'Play the place slowly, watching the fingers, the lips as in the middle register.' },
    serves: 'just-this-seam',
    sure: 0.5,
  },
];
