import { median, quantile } from '@/core/base';
import { slideAdvice } from '@/core/instruments';
import { NOTHING, type Part } from './part';
import { centsOff, nameOf, playedNotes, stretch, type Reading } from './reading';
import type { Finding } from './verdict';
import { displayName } from '@/core/tuning';
import { fixed, listed } from './words';
import { highOrLow } from '@/core/tuning';

/** Where the slide should go, from what was heard of a few plain notes. */
export function slidePart(reading: Reading, a4: number, celsius: number | null): Part {
  const readings = playedNotes(reading).flatMap(({ match, note }) => {
    const cents = centsOff(note, match.group);
    return cents === null ? [] : [{ written: match.group.written, cents, weight: 1 }];
  });
  const advice = slideAdvice(reading.instrument, readings, a4, celsius ?? 20);
  if (!advice) return NOTHING;
  const { millimetres, left, worstNow, worstThen } = advice;
  const helps = Math.abs(millimetres) >= 0.5 && worstThen < worstNow - 1;
  const rest = left.filter((each) => Math.abs(each.cents) > reading.limits.centreCents);
  const finding: Finding = {
    id: 'slide',
    label: 'Slide',
    value: helps ? fixed(Math.abs(millimetres), 1) : 'as it is',
    unit: helps ? `mm ${millimetres > 0 ? 'out' : 'in'}` : '',
    sentence: helps
      ? `Then ${rest.length === 0 ? 'every note is within your limit' : `${listed(rest.map((each) => `${displayName(each.written)} stays ${highOrLow(each.cents)}`))}, for you to do`}.`
      : 'Moving it would not help: what is left is between the notes, for you to do.',
    meaning:
      'The same millimetre is more cents on a short tube, so one pull moves notes by different amounts; this one makes what is left smallest. A guess from lengths and the temperature: try half of it, and play again.',
  };
  return {
    findings: [finding],
    faults: [],
    headline: {
      text: helps
        ? `${millimetres > 0 ? 'Pull out' : 'Push in'} ${fixed(Math.abs(millimetres), 1)} mm`
        : 'The slide is where it should be',
      weight: 2.2,
    },
  };
}

/** The room: its noise, the ordinary mf, and how long it rings. */
export function roomPart(reading: Reading, processing: readonly string[]): Part {
  const { trace, floorDb } = reading;
  const played = playedNotes(reading)[0];
  const findings: Finding[] = [
    {
      id: 'floor',
      label: 'Noise of the room',
      value: fixed(floorDb, 0),
      unit: 'dBFS',
      sentence:
        floorDb > -45 ? 'Loud: soft playing will drown in it.' : floorDb > -60 ? 'Ordinary.' : 'Quiet.',
      meaning: 'The level when nobody plays. Soft notes and air are only told when they stand over it.',
    },
    {
      id: 'microphone',
      label: 'The microphone',
      value: processing.length === 0 ? 'plain' : null,
      unit: '',
      sentence:
        processing.length === 0
          ? 'It changes nothing by itself.'
          : `It keeps ${listed(processing.map((each) => each.replace('-', ' ')))} on: levels and soft sounds are not to be trusted.`,
      meaning: 'Gain control, noise removal and echo cancelling were asked off, and the settings read back.',
    },
  ];
  if (played && played.note.levelDb !== null) {
    findings.push({
      id: 'reference',
      label: 'Your ordinary mf',
      value: fixed(played.note.levelDb, 0),
      unit: 'dBFS',
      sentence: `${fixed(played.note.levelDb - floorDb, 0)} dB over the room.`,
      meaning: 'A mark for this device in this place: come back to it when levels of two days are compared.',
    });
    const ring = ringing(reading, played.note.endSeconds, played.note.levelDb);
    findings.push({
      id: 'ringing',
      label: 'The room rings',
      value: ring === null ? null : fixed(1000 * ring, 0),
      unit: 'ms for 20 dB',
      sentence:
        ring === null
          ? 'Not known: the note was not stopped cleanly over the noise.'
          : ring > 0.25
            ? 'A live room: it hides attacks and flatters the tone.'
            : ring < 0.1
              ? 'A dry room: it shows everything.'
              : 'Neither live nor dry.',
      meaning:
        'How long the sound takes to fall by 20 dB after the note was stopped. A slow release looks like a live room.',
    });
  }
  return {
    findings,
    faults: [],
    headline: {
      text: floorDb > -45 ? 'A loud room' : floorDb < -60 ? 'A quiet room' : 'An ordinary room',
      weight: 2,
    },
  };

  function ringing({ trace: { stepSeconds } }: Reading, end: number, levelDb: number): number | null {
    if (levelDb - 20 < floorDb + 4) return null;
    const after = stretch(trace, 'levelDb', end - 0.2, end + 2);
    const loudest = quantile(after.slice(0, Math.round(0.2 / stepSeconds)), 0.5);
    const from = after.findIndex((dB) => dB < loudest - 3);
    const to = after.findIndex((dB) => dB < loudest - 23);
    return from < 0 || to < 0 ? null : (to - from) * stepSeconds;
  }
}

/** A deliberately unstable fingering, softer and softer: what came, and at what level. */
export function registerTestPart(reading: Reading): Part {
  const { events, trace } = reading;
  const levelAt = (seconds: number) => median(stretch(trace, 'levelDb', seconds - 0.05, seconds + 0.1));
  const growls = events.filter(
    (event) => event.kind === 'undertone' || (event.kind === 'break' && !isUp(event)),
  );
  const squeaks = events.filter(
    (event) => event.kind === 'squeak' || (event.kind === 'break' && isUp(event)),
  );
  const text =
    growls.length === 0 && squeaks.length === 0
      ? 'Neither growl nor squeak: air and lips kept it in balance.'
      : growls.length >= squeaks.length
        ? 'A growl below: too little air speed or support for the softness.'
        : 'A squeak above: biting.';
  const first = [...growls, ...squeaks].sort((a, b) => a.startSeconds - b.startSeconds)[0];
  return {
    findings: [
      {
        id: 'register-test',
        label: 'It gave way',
        value: first ? fixed(levelAt(first.startSeconds), 0) : 'not at all',
        unit: first ? 'dBFS' : '',
        sentence: text,
        meaning: 'The level at which the first growl or squeak came. Lower is better; follow it over time.',
      },
    ],
    faults: [
      ...growls.slice(0, 1).map(() => fault('undertone')),
      ...squeaks.slice(0, 1).map(() => fault('squeak')),
    ],
    headline: {
      text:
        growls.length === 0 && squeaks.length === 0
          ? 'It held'
          : growls.length >= squeaks.length
            ? 'A growl below'
            : 'A squeak above',
      weight: 2.4,
    },
  };

  function isUp(event: (typeof events)[number]): boolean {
    const note = event.noteIndex === null ? undefined : reading.notes[event.noteIndex];
    return note !== undefined && event.soundingMidi !== null && event.soundingMidi > note.soundingMidi;
  }
  function fault(kind: 'undertone' | 'squeak') {
    return { kind, group: 0, atSlur: false, size: 2, confidence: 0.7, dynamic: 'f' as const };
  }
}

/** A note held near its breaking point, or explored by angle: how rich, how loud, how well in tune. */
export function richnessPart(reading: Reading): Part {
  const pairs = playedNotes(reading);
  const rich = pairs.flatMap(({ note, match }) =>
    note.richness === null
      ? []
      : [{ name: nameOf(match.group), richness: note.richness, cents: note.centreCents, note }],
  );
  if (rich.length === 0) return NOTHING;
  const whole = rich
    .flatMap(({ note }) => stretch(reading.trace, 'richness', note.startSeconds + 0.2, note.endSeconds - 0.1))
    .filter(Number.isFinite);
  const best = quantile(whole, 0.95);
  const moved = pairs.flatMap(({ note }) => {
    const pitch = stretch(reading.trace, 'pitchMidi', note.startSeconds + 0.2, note.endSeconds - 0.1);
    return pitch
      .map((each) => Math.abs(100 * (each - note.soundingMidi) - (note.centreCents ?? 0)))
      .filter(Number.isFinite);
  });
  const strayed = quantile(moved, 0.9);
  return {
    findings: [
      {
        id: 'richest',
        label: 'At its richest',
        value: fixed(best, 0),
        unit: 'partials',
        sentence:
          best - median(whole) > 2
            ? 'Clearly richer in places: look for what you did there.'
            : 'Much the same all along.',
        meaning:
          'Partials within 50 dB of the strongest and clear of the noise; the richest twentieth of the time.',
      },
      {
        id: 'strayed',
        label: 'The pitch',
        value: fixed(strayed, 0),
        unit: 'cents about its middle',
        sentence: strayed < 10 ? 'It stayed.' : 'It moved along.',
        meaning: 'Nine tenths of the time the pitch was nearer to the note’s middle than this.',
      },
    ],
    faults: [],
    headline: { text: `${fixed(best, 0)} partials at the richest`, weight: 1.8 },
  };
}
