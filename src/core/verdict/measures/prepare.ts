import { type Decibels, median, quantile, type Seconds } from '@/core/base';
import { slideAdvice } from '@/core/instruments';
import { leaning } from '@/core/tuning';
import { figure, isKnown, valueOf, wholeOf, type Figure } from '../figure';
import { numbers, NOTHING, SILENT, type Measure } from '../measure';
import { centsOff, playedNotes, traced, type Reading } from '../reading';
import { because, fixed, listed, sized } from '../words';

/** A move smaller than this cannot be made by hand. */
const LEAST_MM = 0.5;

/** Where the slide should go, from what was heard of a few plain notes and from where it is. */
export const slide: Measure = {
  measure(reading) {
    const { instrument, conditions, limits } = reading;
    const heard = playedNotes(reading).flatMap((pair) => {
      const cents = centsOff(reading, pair);
      return cents === null
        ? []
        : [{ written: pair.match.group.written, cents, weight: 1, group: pair.match.group.index }];
    });
    const { slideMm, temperatureC } = conditions.setup;
    const advice = slideAdvice(instrument, heard, conditions.a4, temperatureC ?? 20, slideMm);
    if (!advice) return NOTHING;
    // Inside the limits nothing has to be moved; nor for what moving would not mend.
    const needed = advice.worstNow > limits.centreCents && advice.worstThen < advice.worstNow - 1;
    const mm = needed && Math.abs(advice.millimetres) >= LEAST_MM ? advice.millimetres : 0;
    const groups = heard.map(({ group }) => group);
    return numbers([
      figure('slide', mm, { groups, n: heard.length }),
      ...heard.map(({ group, cents }, i) =>
        figure('slide-left', mm === 0 ? cents : advice.left[i]!.cents, { at: group }),
      ),
    ]);
  },
  say(figures, { limits, matches, nameOf }) {
    const mm = valueOf(figures, 'slide');
    if (mm === null) return SILENT;
    const left = figures.filter(
      (each) => isKnown(each) && each.id === 'slide-left' && Math.abs(each.value) > limits.centreCents,
    );
    const told = left.flatMap((each) =>
      isKnown(each) && each.at !== null
        ? [`${nameOf(matches[each.at]!.group.written)} stays ${leaning(each.value)}`]
        : [],
    );
    const way = `${mm > 0 ? 'Pull out' : 'Push in'} ${fixed(Math.abs(mm), 1)} mm`;
    return {
      headline: mm === 0 ? 'The slide may stay where it is' : way,
      lines: {
        slide:
          mm === 0
            ? told.length === 0
              ? `Every note lies within your limit of ${sized(limits.centreCents, 'cents')} as it is.`
              : `Moving it would not help: ${listed(told)}, for you to do.`
            : `${way} from where it is. Then ${told.length === 0 ? 'every note is within your limit' : `${listed(told)}, for you to do`}.`,
      },
    };
  },
};

const LOUD_ROOM_DB: Decibels = -45;
const QUIET_ROOM_DB: Decibels = -60;
const FALL_DB: Decibels = 20;
/** Milliseconds for 60 dB. */
const LIVE_MS = 300;
const DRY_MS = 150;

/** The room: its noise, the ordinary mf, and how long it rings. */
export const room: Measure = {
  measure(reading) {
    const { floorDb } = reading.conditions;
    const [played] = playedNotes(reading);
    const levelDb = played?.note.levelDb ?? null;
    const groups = played ? [played.match.group.index] : [];
    const reason = played ? (played.note.unknown['levelDb'] ?? 'too-short') : 'not-played';
    const decay = reading.conditions.room?.decaySeconds ?? null;
    // Of the ends of all notes where the take was listened to for it; else of this one's.
    const ring =
      decay ?? (played && levelDb !== null ? ringing(reading, played.note.endSeconds, levelDb) : null);
    return numbers([
      figure('floor', floorDb),
      figure('processing', reading.conditions.processing.length),
      figure('reference', levelDb, { groups }, reason),
      figure('over-room', levelDb === null ? null : levelDb - floorDb, { groups }, reason),
      figure(
        'ringing',
        ring === null ? null : 1000 * ring,
        { groups },
        played ? 'not-stopped-cleanly' : reason,
      ),
    ]);
  },
  say(figures, { processing }) {
    const floor = valueOf(figures, 'floor') ?? QUIET_ROOM_DB;
    const tell = (found: Figure | undefined, say: (value: number) => string) =>
      isKnown(found) ? say(found.value) : because(found?.unknown ?? 'not-played');
    return {
      headline:
        floor > LOUD_ROOM_DB ? 'A loud room' : floor < QUIET_ROOM_DB ? 'A quiet room' : 'An ordinary room',
      lines: {
        floor:
          floor > LOUD_ROOM_DB
            ? 'Loud: soft playing will drown in it.'
            : floor > QUIET_ROOM_DB
              ? 'Ordinary.'
              : 'Quiet.',
        processing:
          processing.length === 0
            ? 'The microphone changes nothing by itself.'
            : `The microphone keeps ${listed(processing.map((each) => each.replace('-', ' ')))} on: levels and soft sounds are not to be trusted.`,
        reference: tell(
          wholeOf(figures, 'reference'),
          () => `${sized(valueOf(figures, 'over-room') ?? 0, 'dB')} over the room.`,
        ),
        ringing: tell(wholeOf(figures, 'ringing'), (ms) =>
          ms > LIVE_MS
            ? `A live room, ${(ms / 1000).toFixed(1)} s: attacks are blurred, tone is flattered. Holes and steps that its echoes could make are not held against you.`
            : ms < DRY_MS
              ? 'A dry room: it shows everything.'
              : 'Neither live nor dry.',
        ),
      },
    };
  },
};

function ringing({ trace, conditions }: Reading, end: Seconds, levelDb: Decibels): Seconds | null {
  if (levelDb - FALL_DB < conditions.floorDb + 4) return null;
  const after = traced(trace, 'levelDb', end - 0.2, end + 2);
  const loudest = quantile(after.slice(0, Math.round(0.2 / trace.stepSeconds)), 0.5);
  const from = after.findIndex((dB) => dB < loudest - 3);
  const to = after.findIndex((dB) => dB < loudest - 3 - FALL_DB);
  return from < 0 || to < 0 ? null : (60 / FALL_DB) * (to - from) * trace.stepSeconds;
}

/** A deliberately unstable fingering, softer and softer: what came, and at what level. */
export const registerTest: Measure = {
  measure(reading) {
    const { events, trace, notes } = reading;
    const levelAt = (seconds: Seconds) => median(traced(trace, 'levelDb', seconds - 0.05, seconds + 0.1));
    const above = (event: (typeof events)[number]) => {
      const note = event.noteIndex === null ? undefined : notes[event.noteIndex];
      return note !== undefined && event.soundingMidi !== null && event.soundingMidi > note.soundingMidi;
    };
    const broke = (event: (typeof events)[number]) => event.kind === 'break' || event.kind === 'blip';
    const growls = events.filter((event) => event.kind === 'undertone' || (broke(event) && !above(event)));
    const squeaks = events.filter((event) => event.kind === 'squeak' || (broke(event) && above(event)));
    const first = [...growls, ...squeaks].sort((a, b) => a.startSeconds - b.startSeconds)[0];
    const groups = playedNotes(reading).map(({ match }) => match.group.index);
    if (groups.length === 0) return NOTHING;
    const gave = first ? levelAt(first.startSeconds) : null;
    return numbers([
      figure('growls', growls.length, { groups, n: groups.length }),
      figure('squeaks', squeaks.length, { groups, n: groups.length }),
      ...(gave === null ? [] : [figure('gave-way', gave, { groups })]),
    ]);
  },
  say(figures) {
    const growls = valueOf(figures, 'growls');
    const squeaks = valueOf(figures, 'squeaks');
    if (growls === null || squeaks === null) return SILENT;
    const told =
      growls + squeaks === 0
        ? 'Neither growl nor squeak: air and lips kept it in balance.'
        : growls >= squeaks
          ? 'A growl below: too little air speed or support for the softness.'
          : 'A squeak above: biting.';
    return {
      headline:
        growls + squeaks === 0
          ? 'It held to the end'
          : growls >= squeaks
            ? 'A growl below'
            : 'A squeak above',
      lines: valueOf(figures, 'gave-way') === null ? { growls: told } : { 'gave-way': told },
    };
  },
};
