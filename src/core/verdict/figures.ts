/** What a figure is, for everybody who shows, files or compares it: one row each. */
interface FigureAbout {
  readonly label: string;
  /** As it stands behind the number; empty where the number is its own unit. */
  readonly unit: string;
  readonly decimals: number;
  /** What it means, and how sure it is. */
  readonly meaning: string;
}

const STEPS =
  'Brightness, richness, air, balance of odd and even partials and level, each in steps that are about just noticed; the root mean square of them.';
const GAIN = 'The microphone’s own gain control has to be off.';

export const FIGURES = {
  // Notes
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
  speech: about(
    'Late speech',
    'ms',
    0,
    'Air or silence between the beginning and the tone, what the measuring itself takes for a note this low left out.',
  ),
  // Time
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
  // Slurs
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
  interval: about('Interval', 'cents wide', 1, 'The slurred interval against its size; minus is narrow.'),
  octave: about('One octave', 'cents wide', 1, 'The higher note against the lower one; minus is narrow.'),
  octaves: about(
    'Octaves',
    'cents wide',
    1,
    'The higher note against the lower one; minus is narrow. The octave is the same in every temperament.',
  ),
  // Sameness
  sameness: about('Sameness', 'steps from the reference', 1, STEPS),
  unlike: about('Unlike the reference', 'steps', 1, STEPS),
  'unlike-brightness': about('Brightness against the reference', 'steps', 1, STEPS),
  'unlike-richness': about('Richness against the reference', 'steps', 1, STEPS),
  'unlike-air': about('Air against the reference', 'steps', 1, STEPS),
  'unlike-hollow': about('Odd and even against the reference', 'steps', 1, STEPS),
  'unlike-level': about('Level against the reference', 'steps', 1, STEPS),
  'anchors-same': about(
    'The anchor',
    'returns the same',
    0,
    'Pitch, level and colour of the anchor at each return against the first time.',
  ),
  'anchor-cents': about(
    'The anchor’s pitch',
    'cents from its first',
    1,
    'Pitch of the anchor at a return against its first sounding.',
  ),
  'anchor-steps': about('The anchor’s colour', 'steps from its first', 1, STEPS),
  'two-tongues': about(
    'Two tongued attacks',
    'ms apart in their rise',
    0,
    'The rise of notes tongued with the tip and with the back of the tongue; they are to be indistinguishable.',
  ),
  'breath-body': about(
    'Body without the tongue',
    'steps from the tongued',
    1,
    'Distance of the bodies of the breath-only notes from the tongued ones. Their beginnings may differ.',
  ),
  // Level
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
    'cents apart',
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
  // Holds
  'best-hold': about(
    'Longest pure hold',
    's',
    1,
    'How long a tone stayed within the limits of pitch and level of its own first second, and without vibrato where none was asked for. The figure to follow over a month or two.',
  ),
  'total-hold': about('Pure in all', 's', 1, 'The pure times of all holds of this take together.'),
  'hold-pure': about('Pure', 's', 1, 'How long this hold stayed pure.'),
  'hold-length': about('Held', 's', 1, 'How long this hold lasted.'),
  // Intonation
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
    'ms for 20 dB',
    0,
    'How long the sound takes to fall by 20 dB after the note was stopped. A slow release looks like a live room.',
  ),
  // Modes
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
  // Exploring
  'bend-down': about(
    'Down',
    'cents',
    0,
    'The lowest pitch of the glides down, against the plain note at the start.',
  ),
  'bend-up': about(
    'Up',
    'cents',
    0,
    'The highest pitch of the glides up, against the plain note at the start.',
  ),
  'bend-even': about(
    'Evenness of the glide',
    'cents from a smooth way',
    0,
    'Mean distance of the pitch from the straight way between the ends of each glide.',
  ),
  'bend-level': about(
    'Tone',
    'dB lost',
    0,
    'How much softer than the plain note the tone became while it was bent; breaths between do not count.',
  ),
  'bend-broke': about('Broke', 'times', 0, 'Other modes and squeaks on the way.'),
  ring: about(
    'Where it rings',
    'dB below the loudest',
    0,
    'The level at which richness less air is greatest: so much softer than the loudest of this sweep.',
  ),
  'in-tune': about(
    'Where it is in tune',
    'dB below the loudest',
    0,
    'The level at which the pitch crosses its target.',
  ),
  'ring-cents': about(
    'Pitch where it rings',
    'cents',
    0,
    'Where the pitch lies at the breath that rings most.',
  ),
  'ring-gap': about(
    'Between the two',
    'dB',
    0,
    'How much more (or less) breath the right pitch asks for than the best tone.',
  ),
  hysteresis: about(
    'Up against down',
    'dB',
    0,
    'Level of the in-tune breath on the way up less that on the way down.',
  ),
  swept: about('Swept', 'dB', 0, 'From the softest to the loudest that held the note.'),
  'sweep-cents': about('Pitch along the sweep', 'cents, the middle', 0, 'The median pitch of the sweep.'),
  richest: about(
    'At its richest',
    'partials',
    0,
    'Partials within 50 dB of the strongest and clear of the noise; the richest twentieth of the time.',
  ),
  'richest-more': about(
    'Richer than elsewhere',
    'partials',
    0,
    'The richest against the middle of the whole.',
  ),
  'richest-at': about('Where it is richest', 's into it', 1, 'The middle of the richest half second.'),
  'richest-cents': about(
    'Pitch there',
    'cents from its middle',
    0,
    'Pitch where it was richest, against the middle of the whole.',
  ),
  strayed: about(
    'The pitch',
    'cents about its middle',
    0,
    'Nine tenths of the time the pitch was nearer to the note’s middle than this.',
  ),
  'differ-pitch': about('Pitch', 'cents', 1, compared()),
  'differ-wobble': about('Wobble', 'cents', 1, compared()),
  'differ-level': about('Level', 'dB', 1, compared()),
  'differ-brightness': about('Brightness', 'partials', 1, compared()),
  'differ-richness': about('Richness', 'partials', 1, compared()),
  'differ-air': about('Air', 'dB', 1, compared()),
  differences: about('Compared', 'things differ', 0, compared()),
  'plain-repeats': about(
    'Plain repeats',
    'counted',
    0,
    'While a voice sounds along, the two cannot be told apart; the plain repeats are the player’s alone.',
  ),
  'colours-apart': about(
    'Colours apart',
    'steps',
    1,
    'Distance of the two tones in steps that are about just noticed.',
  ),
  'model-steps': about(
    'From the model',
    'steps',
    1,
    'Brightness, richness, air and balance of odd and even partials, each in steps that are about just noticed; the root mean square of them. Level is left out, and another microphone and room colour the sound too: trust the direction more than the number.',
  ),
  'model-brightness': about('Brightness against the model', 'steps', 1, STEPS),
  'model-richness': about('Richness against the model', 'steps', 1, STEPS),
  'model-air': about('Air against the model', 'steps', 1, STEPS),
  'model-hollow': about('Odd and even against the model', 'steps', 1, STEPS),
  'model-nearer': about(
    'Nearer from first to last',
    'steps',
    1,
    'Distance at the first time less that at the last.',
  ),
} as const satisfies Record<string, FigureAbout>;

export type FigureId = keyof typeof FIGURES;
export const FIGURE_IDS = Object.keys(FIGURES) as FigureId[];

function about(label: string, unit: string, decimals: number, meaning: string): FigureAbout {
  return { label, unit, decimals, meaning };
}

function compared(): string {
  return 'Difference of the medians, the second side less the first, with a 95 % interval by resampling. Only where the interval leaves zero out is anything claimed.';
}
