import { REED } from './disputes';
import type { Rule } from './rule';

/** Colour and the window of loudness. */
export const COLOUR: readonly Rule[] = [
  {
    fault: 'thin',
    kinds: ['edge'],
    cause: 'Lips tight, no room in the mouth, or the hole covered.',
    tries: {
      air: 'More air, slower, with the mouth open behind it.',
      support: 'Let the belly carry it and the face do nothing.',
      shape: 'Room between the teeth; turn out until it opens.',
    },
    serves: 'reference-travel',
    sure: 0.6,
  },
  {
    fault: 'thin',
    kinds: REED,
    cause: 'Biting.',
    tries: { any: 'Let the jaw down and keep the air: the reed needs room to swing.' },
    serves: 'reference-travel',
    sure: 0.6,
  },
  {
    fault: 'thin',
    cause: 'Too little breath in the note.',
    tries: { any: 'Give the note more breath until it rings, then see where its pitch is.' },
    serves: 'breath-sweep',
    sure: 0.5,
  },
  {
    fault: 'airy',
    kinds: ['ducted'],
    cause: 'A wet windway, or too little breath.',
    tries: { any: 'Clear the windway, warm the head, and breathe a little more.' },
    serves: 'breath-sweep',
    sure: 0.6,
  },
  {
    fault: 'airy',
    cause: 'After opening up there is air for a while; otherwise the stream is not focused.',
    tries: {
      air: 'Leave it for a week if you have just opened up. Otherwise aim the same air at a smaller place.',
      support: 'Steady the push; unsteady air is noisy air.',
      shape: 'A smaller, rounder opening; find the angle where the noise goes.',
    },
    serves: 'angle-sweep',
    disagreement: 'A tone with no air at all may not carry across a room.',
    sure: 0.5,
  },
  {
    fault: 'unlike',
    cause: 'The sound was remade for this note instead of carried into it.',
    tries: { any: 'Go back to the reference note and slur from it, changing nothing but the fingers.' },
    serves: 'problem-circle',
    sure: 0.55,
  },
  {
    fault: 'narrow-window',
    cause: 'The softest and the loudest lie close together.',
    tries: {
      air: 'For loud: more air and more focus. For soft: less air at the same speed.',
      support: 'Keep the push through the soft; add to it for the loud.',
      shape: 'A smaller opening for soft, a larger one for loud; the pitch tells when it is too much.',
    },
    serves: 'dynamic-window',
    sure: 0.5,
  },
  {
    fault: 'narrow-window',
    kinds: REED,
    needs: 'several-takes',
    cause: 'The reed may be too hard, or heavy at the tip: other reeds gave a wider window.',
    tries: { any: 'Play the same window on an easier reed. If it widens again, it was the reed.' },
    serves: 'dynamic-window',
    sure: 0.5,
  },
  {
    fault: 'narrow-window',
    where: 'low',
    dynamic: 'soft',
    cause: 'Low notes need more air to be more than soft.',
    tries: { any: 'More air. If it breaks up, release pressure; if nothing changes, focus more.' },
    serves: 'dynamic-window',
    sure: 0.55,
  },
];
