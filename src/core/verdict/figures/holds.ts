import { about, type FigureAbout } from './about';

/** Figures of: holds. */
export const HOLDS = {
  'best-hold': about(
    'Longest pure hold',
    's',
    1,
    'How long a tone stayed within the limits of pitch and level of its own first second, and without vibrato where none was asked for. The figure to follow over a month or two.',
  ),
  'total-hold': about('Pure in all', 's', 1, 'The pure times of all holds of this take together.'),
  'hold-pure': about('Pure', 's', 1, 'How long this hold stayed pure.'),
  'hold-length': about('Held', 's', 1, 'How long this hold lasted.'),
} as const satisfies Record<string, FigureAbout>;
