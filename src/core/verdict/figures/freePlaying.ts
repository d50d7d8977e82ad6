import { about, GAIN, type FigureAbout } from './about';

/** Figures of: what was played when nothing was asked. */
export const PLAYED = {
  sounded: about('Sounded', 's', 0, 'The lengths of all notes together; silences are left out.'),
  'notes-met': about('Notes', 'of the instrument', 0, 'Different written notes that were played.'),
  'note-seconds': about('Played for', 's', 1, 'The lengths of all times that the note was played.'),
  'note-centre': about(
    'Lay',
    'cents',
    0,
    'The median of the middles of all times that the note was played, against its place in the chosen temperament.',
  ),
  'note-level': about('Level', 'dBFS', 0, `The median of its levels. ${GAIN}`),
} as const satisfies Record<string, FigureAbout>;
