import { about, type FigureAbout } from './about';

/** Figures of: slurs. */
export const SLURS = {
  'slurs-clean': about(
    'Slurs',
    'clean',
    0,
    'A slur is clean when no mode sounded that was not asked for, the level neither dipped nor jumped, the new pitch settled in time, and the interval is right where it counts. The limits are those of your level.',
  ),
  'crossings-clean': about(
    'Over the break',
    'clean',
    0,
    'Those slurs whose two notes lie in different registers.',
  ),
  'slur-dip': about(
    'Dip',
    'dB',
    1,
    'The middle of the dips in level between slurred notes, under the softer of the two.',
  ),
  'slur-bump': about(
    'Bump',
    'dB',
    1,
    'A push in the level between two slurred notes, over the louder of the two.',
  ),
  'slur-time': about(
    'Time of a slur',
    'ms',
    0,
    'From leaving one pitch to having settled on the other, what the measuring takes of it left out.',
  ),
  'slur-overshoot': about('Overshoot', 'cents', 0, 'How far the pitch went beyond the new note.'),
  'slur-step': about('Step of level', 'dB', 1, 'Level of the second note against the first.'),
  interval: about(
    'Interval',
    'cents, wide is plus',
    1,
    'The slurred interval against its size; minus is narrow.',
  ),
  octave: about(
    'One octave',
    'cents, wide is plus',
    1,
    'The higher note against the lower one; minus is narrow.',
  ),
  octaves: about(
    'Octaves',
    'cents, wide is plus',
    1,
    'The higher note against the lower one; minus is narrow. The octave is the same in every temperament.',
  ),
} as const satisfies Record<string, FigureAbout>;
