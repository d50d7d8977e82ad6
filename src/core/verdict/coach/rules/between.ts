import { LEAP } from './disputes';
import type { Rule } from './rule';

/** What happens between two notes. */
export const BETWEEN: readonly Rule[] = [
  {
    fault: 'hole',
    cause: 'The air let go between the notes.',
    tries: {
      air: 'Blow through the change as if nothing happened; the fingers alone make the second note.',
      support: 'Keep the push at the moment of the change, where it wants to let go.',
      shape: 'Change nothing in the mouth until the new note sounds.',
    },
    serves: 'octave-slurs',
    sure: 0.75,
  },
  {
    fault: 'bump',
    cause: 'The air was pushed at the change.',
    tries: {
      air: 'Let the air change just enough.',
      support: 'One push for both notes, none for the leap.',
      shape: 'Shape the second note; do not hit it.',
    },
    serves: 'two-note-legato',
    sure: 0.65,
  },
  {
    fault: 'narrow-leap',
    cause: 'Throat or body tense at the top of the leap.',
    tries: { any: 'Hum along once, then play it plain: shoulders and throat loose, a smaller movement.' },
    serves: 'comparison',
    disagreement: LEAP,
    sure: 0.55,
  },
  {
    fault: 'slow-slur',
    cause: 'Fingers and air did not arrive together.',
    tries: { any: 'First the fingers, then the breath; then both at once, straight there.' },
    serves: 'two-note-legato',
    sure: 0.5,
  },
  {
    fault: 'anchor-moved',
    cause: 'The mouth followed the leap and stayed there.',
    tries: { any: 'Come home before you arrive: think the anchor’s shape while the far note still sounds.' },
    serves: 'anchored-intervals',
    sure: 0.65,
  },
  {
    fault: 'overshoot',
    cause: 'The new note was hit rather than reached.',
    tries: { any: 'Arrive late and softly a few times, then bring it back to the beat.' },
    serves: 'two-note-legato',
    sure: 0.5,
  },
];
