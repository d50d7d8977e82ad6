import { beatsToSeconds } from '@/core/music';
import { leaning } from '@/core/tuning';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { beyond, beyondEither, faultAt } from '../beyond';
import { NOT_WHOLE } from '../faults';
import { figure, isKnown, valueOf, wholeOf, type Figure, type Reason } from '../figure';
import type { FigureId } from '../figures';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { centsOff, known, playedNotes, type Reading } from '../reading';
import { because, fixed, sized } from '../words';
import { endingOf } from '../account';
import { mayBeCutByRoom, NOT_PURE_IN_ROOM } from './holds';
import { unknownRise } from './rise';
import { mayFadeInRoom, roomSpread, roomSwing, WITHIN_NOTE } from './roomSpread';
import { centreError, driftError, hasWobble, wobbleHiddenBy } from './wobble';

/** Less than this is even, whatever the room does; less than so many times what the room does may be the room's. */
const LEAST_LEVEL_WOBBLE_DB = 0.7;
const MAY_BE_ROOM = 3;
/** A note by itself has no fellows to lie under: it may lie in a node, 6 dB down. */
const IN_NODE = 2;

const mayWaverInRoom = (reading: Reading, note: Note): boolean =>
  note.levelWobbleDb !== null &&
  ((note.levelWobbleDb > LEAST_LEVEL_WOBBLE_DB &&
    note.levelWobbleDb < MAY_BE_ROOM * roomSwing(reading, note)) ||
    (note.levelWobbleDb > reading.limits.levelWobbleDb &&
      note.levelWobbleDb <=
        Math.hypot(reading.limits.levelWobbleDb, IN_NODE * WITHIN_NOTE * roomSpread(reading, [note]))));

/** How it was held, as far as it is known: steady is what is so in pitch and in level. */
function mannerText(figures: readonly Figure[]): string {
  const wobble = wholeOf(figures, 'wobble');
  if (wobble && !isKnown(wobble)) return wobble.unknown === 'too-short' ? ' and short' : '';
  if ((valueOf(figures, 'vibrato') ?? 0) > 0) return ' with vibrato';
  return isKnown(wholeOf(figures, 'level-wobble')) ? ' and steady' : ', its pitch steady';
}

/** One held note, looked at from every side. */
export const held: Measure = {
  measure(reading) {
    const [pair] = playedNotes(reading);
    if (!pair) return NOTHING;
    const { note } = pair;
    const of = (
      id: FigureId,
      value: number | null,
      name: string = id,
      spread: number | null = null,
    ): Figure =>
      figure(
        id,
        value,
        { at: null, groups: [pair.match.group.index], spread },
        note.unknown[name] ?? 'too-short',
      );
    const { firstBeatSeconds, roundTrip } = reading.timing;
    const late = firstBeatSeconds === null ? null : note.startSeconds - firstBeatSeconds - roundTrip.seconds;
    const unless = (hiddenBy: Reason | null, known: Figure): Figure =>
      hiddenBy ? figure(known.id, null, { groups: known.groups }, hiddenBy) : known;
    const unlessRoom = (isOfRoom: boolean, known: Figure): Figure => unless(isOfRoom ? 'room' : null, known);
    const fades = -(note.levelDriftDbPerSecond ?? 0) > reading.limits.fadeDbPerSecond;
    const swing = note.wobbleCents === null ? null : (note.vibrato?.extentCents ?? 0);
    return numbers([
      of('centre', centsOff(reading, pair), 'centreCents', centreError(reading, note)),
      of('drift', note.driftCentsPerSecond, 'driftCentsPerSecond', driftError(note)),
      unless(
        hasWobble(note) ? wobbleHiddenBy(note, reading, IN_NODE) : null,
        of('wobble', note.wobbleCents, 'wobbleCents'),
      ),
      of('vibrato', swing, 'wobbleCents'),
      ...(note.vibrato ? [of('vibrato-rate', note.vibrato.rateHz)] : []),
      of('loudness', note.levelDb, 'levelDb'),
      unlessRoom(mayWaverInRoom(reading, note), of('level-wobble', note.levelWobbleDb, 'levelWobbleDb')),
      unlessRoom(
        fades && mayFadeInRoom(note, reading, IN_NODE),
        of('fade', note.levelDriftDbPerSecond, 'levelDriftDbPerSecond'),
      ),
      unlessRoom(mayBeCutByRoom(note, reading, IN_NODE), of('purity', note.puritySeconds, 'puritySeconds')),
      of('hold-length', lengthOf(note)),
      late === null
        ? figure('latency', null, { groups: [pair.match.group.index] }, 'no-beat')
        : of('latency', 1000 * late),
      of('rise', ms(note.attack.riseSeconds), 'riseSeconds'),
      of('scoop', note.attack.scoopCents, 'scoopCents'),
      ...known([endingOf(reading, note, IN_NODE)]).map((cents) => of('end-pitch', cents)),
      of('air', note.airinessDb, 'airinessDb'),
    ]);
  },

  judge(figures, judging) {
    const { limits, score } = judging;
    const at = (id: FigureId): Figure | undefined => {
      const found = wholeOf(figures, id);
      return found && { ...found, at: 0 };
    };
    const air = valueOf(figures, 'air');
    const fade = at('fade');
    const swing = valueOf(figures, 'vibrato') ?? 0;
    return [
      ...beyondEither(judging, at('centre'), limits.centreCents, ['steadily-low', 'steadily-high'], {
        beyondError: true,
      }),
      ...beyondEither(judging, at('drift'), limits.driftCentsPerSecond, ['sinking', 'rising'], {
        beyondError: true,
      }),
      ...beyond(judging, at('wobble'), limits.wobbleCents, 'unsteady'),
      ...beyond(judging, at('scoop'), limits.scoopCents, 'scooped'),
      ...beyondEither(judging, at('end-pitch'), limits.endingCents, ['end-low', 'end-high']),
      // A vibrato may be one of the level: it is told as what it is.
      ...(swing > 0 ? [] : beyond(judging, at('level-wobble'), limits.levelWobbleDb, 'tremor')),
      ...(isKnown(fade) && fade.value < 0
        ? beyond(judging, fade, limits.fadeDbPerSecond, 'fading-hold')
        : []),
      ...(score.vibrato === 'none' && swing > 0
        ? [faultAt(judging, 0, 'vibrato', 1 + swing / 10, { figure: 'vibrato', value: swing, limit: null })]
        : []),
      ...(air !== null && air > limits.airinessDb
        ? [
            faultAt(
              judging,
              0,
              'airy',
              1 + (air - limits.airinessDb) / 8,
              { figure: 'air', value: air, limit: limits.airinessDb },
              { confidence: 0.6 },
            ),
          ]
        : []),
    ];
  },

  say(figures, { limits, score, matches, faults, nameAt }) {
    const [match] = matches;
    const length = valueOf(figures, 'hold-length');
    if (!match || length === null) return SILENT;
    const name = nameAt(0);
    const wanted = beatsToSeconds(score, match.group.beats);
    const tell = (id: FigureId, say: (value: number) => string, inRoom?: string) => {
      const found = wholeOf(figures, id);
      if (!found) return { [id]: '' };
      if (isKnown(found)) return { [id]: say(found.value) };
      return { [id]: found.unknown === 'room' && inRoom ? inRoom : because(found.unknown) };
    };
    const centre = valueOf(figures, 'centre');
    return {
      headline:
        centre === null
          ? `${name} was heard, in company`
          : `${name} ${leaning(centre)}${mannerText(figures)}`,
      lines: {
        ...tell('centre', (value) =>
          Math.round(Math.abs(value)) === 0
            ? `${name} sat in the middle of its pitch.`
            : `${name} sat ${leaning(value)}${Math.abs(value) <= limits.centreCents ? ', within your limit' : ''}.`,
        ),
        ...tell('drift', (value) =>
          Math.abs(value) < limits.driftCentsPerSecond / 2
            ? 'The pitch stayed where it began.'
            : `The pitch ${value > 0 ? 'rose' : 'sank'} by ${sized(value * length, 'cents')} over the note.`,
        ),
        ...tell('wobble', (value) =>
          value < limits.wobbleCents / 2
            ? 'Hardly any wobble.'
            : value <= limits.wobbleCents
              ? 'A little wobble.'
              : 'The pitch shook.',
        ),
        ...tell('vibrato', (value) =>
          value === 0
            ? score.vibrato === 'wanted'
              ? 'Vibrato was asked for; none was heard.'
              : 'No vibrato.'
            : `${fixed(valueOf(figures, 'vibrato-rate') ?? 0, 1)} Hz, ${sized(value, 'cents')} either way${score.vibrato === 'none' ? ', where none was asked for' : ''}.`,
        ),
        ...tell('loudness', (value) =>
          value > -6
            ? 'Close to the most that the microphone takes.'
            : value < -50
              ? 'Very soft for this microphone; nearer would be better.'
              : 'Well within what the microphone takes.',
        ),
        ...tell(
          'level-wobble',
          (value) => {
            const fade = valueOf(figures, 'fade');
            const even = `The loudness was ${value <= limits.levelWobbleDb ? 'even' : 'uneven'}`;
            return fade === null || Math.abs(fade) < limits.fadeDbPerSecond / 2
              ? `${even}.`
              : `${even}, and it ${fade < 0 ? 'faded' : 'grew'} by ${sized(fade, 'dB a second', 1)}.`;
          },
          'Not known: in this room the loudness of an even tone swings by as much, with a vibrato or where echoes cancel it.',
        ),
        ...tell(
          'purity',
          (value) =>
            faults.some(({ kind }) => NOT_WHOLE.includes(kind))
              ? `Pure for ${fixed(value, 1)} s at a time: the note did not hold through.`
              : value >= Math.min(length, wanted) - 0.3
                ? `Pure all along: within ${limits.purityCents} cents and ${limits.purityDb} dB of its first second.`
                : `Pure for ${fixed(value, 1)} of ${fixed(length, 1)} s.`,
          NOT_PURE_IN_ROOM,
        ),
        ...tell('latency', (value) =>
          Math.abs(value) <= limits.rushMs
            ? 'On the beat.'
            : `${value > 0 ? 'Late' : 'Early'} by ${sized(value, 'ms')}.`,
        ),
        ...tell(
          'rise',
          (value) =>
            value < 60 ? 'A quick start.' : value < 150 ? 'A soft start.' : 'It took its time to speak.',
          unknownRise('room'),
        ),
        ...tell('air', (value) =>
          value > -15
            ? 'Much air beside the tone.'
            : value > -25
              ? 'Some air beside the tone.'
              : 'A clear tone.',
        ),
      },
    };
  },
};

/** Seconds in milliseconds; unknown stays unknown. */
export const ms = (seconds: number | null): number | null => (seconds === null ? null : 1000 * seconds);
