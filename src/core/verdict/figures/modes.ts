import { about, type FigureAbout } from './about';

/** Figures of: modes. */
export const MODES = {
  'modes-reached': about(
    'Modes reached',
    '',
    0,
    'Each mode is one resonance of the fingered tube: 2 the octave, 3 the twelfth and so on.',
  ),
  mode: about('Mode', '', 0, 'Which resonance of the fingered tube sounded.'),
  'mode-cents': about(
    'Against the true multiples',
    'cents',
    0,
    'The pitch of each mode against so many times the fundamental as you sounded it; the median. Natural harmonics are not the tuner’s: the fifth lies 14 cents under it, the seventh 31.',
  ),
  'mode-off': about(
    'Against its multiple',
    'cents',
    0,
    'The pitch of this mode against so many times the fundamental as you sounded it.',
  ),
  'mode-ordinary': about(
    'Against the ordinary fingering',
    'cents',
    0,
    'The pitch of this mode against the same note with its ordinary fingering.',
  ),
  processing: about(
    'The microphone',
    'changes by itself',
    0,
    'Gain control, noise removal and echo cancelling were asked off, and the settings read back.',
  ),
  'gave-way': about(
    'It gave way',
    'dBFS',
    0,
    'The level at which the first growl or squeak came. Lower is better; follow it over time.',
  ),
  growls: about('Growls', 'below the note', 0, 'Too little air speed or support for the softness.'),
  squeaks: about('Squeaks', 'above the note', 0, 'Biting.'),
} as const satisfies Record<string, FigureAbout>;
