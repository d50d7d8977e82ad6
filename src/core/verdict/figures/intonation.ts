import { about, type FigureAbout } from './about';

/** Figures of: intonation. */
export const INTONATION = {
  just: about(
    'From the just interval',
    'cents, the middle of the distances',
    1,
    'Your middle against the pure interval over the held note, which is not the tuner’s: the major third lies 14 cents lower than on the tuner, the fifth 2 higher. Distances count without their sign, so that opposite errors do not hide each other.',
  ),
  'just-cents': about(
    'From the just interval',
    'cents',
    1,
    'Your middle against the pure interval over the held note.',
  ),
  beats: about(
    'Beats',
    'a second',
    1,
    'Of the lowest partials that coincide when the interval is pure; the median of all notes.',
  ),
  'beats-of-note': about(
    'Beats',
    'a second',
    1,
    'Of the lowest partials that coincide when the interval is pure.',
  ),
  leaning: about(
    'You lean',
    'cents on average',
    1,
    'The mean signed error with the reading hidden. A habit to know, not a score: it says which way your ear and your instrument go when nothing shows you.',
  ),
  'soft-loud': about(
    'Loud against soft',
    'cents',
    0,
    'The middle of the loud notes less that of the soft ones.',
  ),
  'scan-middle': about(
    'Where it sits',
    'cents, the middle note',
    1,
    'The median of all notes as they sat by themselves.',
  ),
  slide: about(
    'Slide',
    'mm, out is plus',
    1,
    'The same millimetre is more cents on a short tube, so one pull moves notes by different amounts; this one makes what is left smallest. A guess from lengths and the temperature: try half of it, and play again.',
  ),
  'slide-left': about('Left after it', 'cents', 0, 'Where the note would lie with the slide there.'),
  floor: about(
    'Noise of the room',
    'dBFS',
    0,
    'The level when nobody plays. Soft notes and air are only told when they stand over it.',
  ),
  reference: about(
    'Your ordinary mf',
    'dBFS',
    0,
    'A mark for this device in this place: come back to it when levels of two days are compared.',
  ),
  'over-room': about('Over the room', 'dB', 0, 'Your ordinary mf over the noise of the room.'),
  ringing: about(
    'The room rings',
    'ms for 60 dB',
    0,
    'How long the sound takes to fall by 60 dB after a note was stopped. A slow release looks like a live room.',
  ),
} as const satisfies Record<string, FigureAbout>;
