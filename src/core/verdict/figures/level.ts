import { about, type FigureAbout } from './about';

/** Figures of: level. */
export const LEVEL = {
  'line-off': about(
    'Off the line',
    'dB',
    1,
    'RMS distance of the level from the nearest line of the asked shape.',
  ),
  line: about(
    'Line of the level',
    'dB from an even line',
    1,
    'RMS distance of the level from the nearest straight line of the asked shape, through your own softest and loudest; the median of all lines.',
  ),
  'line-rise': about(
    'Way of one line',
    'dB',
    0,
    'How far the level went the way that was asked, by the nearest line of that shape; below zero it went the other way.',
  ),
  'line-moved': about(
    'Pitch over one line',
    'cents',
    0,
    'The pitch of the last fifth of the note against that of the first.',
  ),
  'line-range': about('Range of one line', 'dB', 0, 'From the softest to the loudest of a line.'),
  range: about('Range', 'dB', 0, 'From the softest to the loudest of a line; the median of all.'),
  'line-slope': about(
    'Pitch with level, one line',
    'cents per 10 dB',
    1,
    'How the pitch goes with the level over one line (Theil–Sen), each note against its own target.',
  ),
  'pitch-per-level': about(
    'Pitch with level',
    'cents per 10 dB',
    1,
    'How the pitch goes with the level (Theil–Sen slope over each line, each note against its own target; the median of all).',
  ),
  turns: about(
    'Against the way',
    'steps',
    0,
    'How often the level turned against its way by more than a little.',
  ),
  peak: about(
    'The peak',
    'ms from the middle, late is plus',
    0,
    'The loudest moment of a swell against the middle of the note, which is where it was asked for.',
  ),
  ending: about(
    'The end',
    'dB over the room',
    0,
    'The last level that was held, over the level of the room. A quieter room lets you hear more of a taper.',
  ),
  'top-reversed': about(
    'The top, grown into',
    'cents',
    1,
    'Pitch of the top of the line when the line grows into it.',
  ),
  'top-written': about(
    'The top, faded into',
    'cents',
    1,
    'Pitch of the top of the line when the line fades into it.',
  ),
  'top-difference': about(
    'The top both ways',
    'cents, higher faded into is plus',
    1,
    'Pitch of the top faded into, less that of the top grown into: near zero is the aim.',
  ),
  'pulse-depth': about(
    'Depth of the pulses',
    'dB',
    1,
    'How far the level falls from the top of a surge to the dip after it; the median.',
  ),
  'pulse-evenness': about(
    'Evenness of the pulses',
    'dB',
    1,
    'How far the depths lie from an even way from the first to the last.',
  ),
  'pulse-length': about('Length of the pulses', 'ms', 0, 'From one surge to the next; the median.'),
  'pulses-heard': about('Pulses', 'heard', 0, 'Surges of the level by 2 dB or more.'),
  window: about(
    'Dynamic window',
    'dB, the middle note',
    0,
    'From the softest to the loudest that was held with its tone.',
  ),
  'window-note': about(
    'Window of one note',
    'dB',
    0,
    'From the softest to the loudest that this note was held at.',
  ),
  'softest-db': about('The softest', 'dBFS', 0, 'Level of the softest that was held.'),
  'loudest-db': about('The loudest', 'dBFS', 0, 'Level of the loudest that was held.'),
  'softest-cents': about('Pitch at the softest', 'cents', 0, 'Against the note’s target.'),
  'loudest-cents': about('Pitch at the loudest', 'cents', 0, 'Against the note’s target.'),
} as const satisfies Record<string, FigureAbout>;
