import { about, GAIN, type FigureAbout } from './about';

/** Figures of: notes. */
export const NOTES = {
  'notes-played': about(
    'Notes',
    'as written',
    0,
    'What was heard is laid beside the music; skipped, repeated, added and wrong notes are told apart by the best fit of the whole.',
  ),
  events: about(
    'What happened',
    'events',
    0,
    'Sounds that were not asked for: other modes, squeaks, undertones, holes, late beginnings. The strip shows where.',
  ),
  centre: about(
    'Pitch',
    'cents',
    1,
    'The middle of the pitch over the note, against its target in the chosen temperament. Good to about half a cent.',
  ),
  'pitch-middle': about(
    'Pitch',
    'cents',
    1,
    'The median of all notes’ centres against their targets, in the chosen temperament. Good to about half a cent.',
  ),
  'pitch-spread': about(
    'Spread of pitch',
    'cents',
    1,
    'How far the notes lie from their own middle (median deviation, scaled to a standard deviation).',
  ),
  drift: about(
    'Drift',
    'cents a second',
    2,
    'The slope of the pitch from beginning to end, robust against single slips.',
  ),
  wobble: about(
    'Wobble',
    'cents',
    1,
    'Irregular movement of the pitch (RMS) within a note, drift and vibrato taken away; of several notes the median.',
  ),
  vibrato: about(
    'Vibrato',
    'cents either way',
    0,
    'A regular swing of 3.5 to 8 Hz. The extent is half of the way from lowest to highest.',
  ),
  'vibrato-rate': about('Rate of the vibrato', 'Hz', 1, 'Swings a second.'),
  loudness: about(
    'Loudness',
    'dBFS',
    1,
    'The middle of the level against the loudest that this microphone can take. It compares takes on one device in one place, not players.',
  ),
  fade: about('Fading', 'dB a second', 1, `The slope of the level over the note. ${GAIN}`),
  'level-wobble': about(
    'Evenness',
    'dB unsteady',
    1,
    `How far the loudness moved about its trend (RMS), whatever the loudness was. ${GAIN}`,
  ),
  'level-spread': about(
    'Evenness',
    'dB from note to note',
    1,
    'Spread of the levels of notes that were to be equally loud. A microphone hears some notes of an instrument louder than others; follow it over time rather than between instruments.',
  ),
  purity: about(
    'Purity',
    's',
    1,
    'Until the pitch or the level left the limits, or vibrato sounded where none was asked for.',
  ),
  air: about(
    'Air',
    'dB against the tone',
    0,
    'Energy between the partials against the partials: the further below zero, the clearer. Room noise counts as air; nearer to the microphone it counts for less.',
  ),
  rise: about(
    'Rise',
    'ms',
    0,
    'From a tenth to nine tenths of the amplitude at each tongued or breathed beginning. A live room makes it longer.',
  ),
  scoop: about('Scoop', 'cents', 0, 'Pitch over the first 150 ms against the centre.'),
  after: about('Since its beginning', 's', 1, 'How long a held note had stood when it happened.'),
  stopped: about(
    'Stopped',
    's',
    2,
    'How long a held note was silent before it went on: the level fell by 12 dB or more, and by more than the room may take.',
  ),
  'cut-short': about(
    'Cut short',
    's',
    1,
    'How long a note was held that ended before three quarters of its time. A breath before the next is allowed for.',
  ),
  'end-pitch': about(
    'Its end',
    'cents',
    0,
    'The pitch of the last half second against the middle of the note.',
  ),
  speech: about(
    'Late speech',
    'ms',
    0,
    'Air or silence between the beginning and the tone, what the measuring itself takes for a note this low left out.',
  ),
} as const satisfies Record<string, FigureAbout>;
