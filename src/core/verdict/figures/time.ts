import { about, type FigureAbout } from './about';

/** Figures of: time. */
export const TIME = {
  latency: about('Attack', 'ms after the beat', 0, 'From the beat to where the tone begins.'),
  'attack-offset': about(
    'One attack',
    'ms after its beat',
    0,
    'From its beat to where the note begins; minus is early.',
  ),
  offset: about('On the beat', 'ms, late is plus', 0, 'The middle distance of the attacks from their beats.'),
  'attack-spread': about(
    'Evenness of attacks',
    'ms',
    0,
    'Spread of the attacks about their own line (two thirds of them lie within it), whether the tempo was kept or not. One note that is late by itself does not count: it is told by itself.',
  ),
  tempo: about('Tempo played', 'beats a minute', 1, 'From the way the attacks moved against the beat.'),
  swing: about(
    'Swing',
    ': 1, long to short',
    2,
    'Median length of the first quaver of a pair against the second; 2 : 1 is the triplet.',
  ),
  'step-spread': about('Spread of one step', 'ms', 0, 'Spread of the attacks of one step of the ladder.'),
  'step-offset': about(
    'One step',
    'ms, late is plus',
    0,
    'The middle of the attacks of one step of the ladder.',
  ),
  'hardest-step': about(
    'The hardest step',
    'attacks a bar',
    0,
    'The step of the ladder whose attacks were least even.',
  ),
} as const satisfies Record<string, FigureAbout>;
