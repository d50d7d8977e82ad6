import type { Score } from '@/core/music';
import type { Note, UnknownReason } from '@/core/hearing/notes';
import type { Timing } from '@/core/take';
import type { Limits } from './limits';
import type { Finding } from './verdict';
import { because, fixed } from './words';

type Say = (value: number) => { value: string; sentence: string };

/** A finding from a figure that may be missing. */
function finding(
  base: { id: string; label: string; unit: string; meaning: string },
  value: number | null,
  reason: UnknownReason | undefined,
  say: Say,
): Finding {
  return value === null ? { ...base, value: null, sentence: because(reason) } : { ...base, ...say(value) };
}

export function centre(note: Note, name: string, limits: Limits): Finding {
  return finding(
    {
      id: 'centre',
      label: 'Centre',
      unit: 'cents',
      meaning:
        'The middle of the pitch over the whole note, against the written note at your pitch standard. Good to about half a cent.',
    },
    note.centreCents,
    note.unknown.centreCents,
    (value) => ({
      value: fixed(value, 1),
      sentence:
        Math.abs(value) < 1
          ? `${name} was in the middle.`
          : `${name} sat ${Math.round(Math.abs(value))} cents ${value > 0 ? 'above' : 'below'} the middle${Math.abs(value) < limits.centreCents ? ', which few would notice' : ''}.`,
    }),
  );
}

export function drift(note: Note, limits: Limits): Finding {
  return finding(
    {
      id: 'drift',
      label: 'Drift',
      unit: 'cents a second',
      meaning: 'The slope of the pitch from beginning to end, robust against single slips.',
    },
    note.driftCentsPerSecond,
    note.unknown['driftCentsPerSecond'],
    (value) => ({
      value: fixed(value, 2),
      sentence:
        Math.abs(value) < limits.driftCentsPerSecond / 2
          ? 'The pitch stayed where it began.'
          : `The pitch ${value > 0 ? 'rose' : 'sank'} by ${fixed(Math.abs(value) * (note.endSeconds - note.startSeconds), 0)} cents over the note.`,
    }),
  );
}

export function wobble(note: Note, limits: Limits): Finding {
  return finding(
    {
      id: 'wobble',
      label: 'Wobble',
      unit: 'cents',
      meaning: 'Irregular movement of the pitch (RMS) once drift and any vibrato are taken away.',
    },
    note.wobbleCents,
    note.unknown['wobbleCents'],
    (value) => ({
      value: fixed(value, 1),
      sentence:
        value < limits.wobbleCents / 2
          ? 'Hardly any wobble.'
          : value < limits.wobbleCents
            ? 'A little wobble.'
            : 'The pitch shook.',
    }),
  );
}

export function vibrato(note: Note, score: Score): Finding {
  const base = {
    id: 'vibrato',
    label: 'Vibrato',
    meaning: 'A regular swing of 3.5 to 8 Hz. The extent is half of the way from lowest to highest.',
  };
  if (note.wobbleCents === null)
    return { ...base, value: null, unit: '', sentence: because(note.unknown['wobbleCents']) };
  if (!note.vibrato) {
    return {
      ...base,
      value: 'none',
      unit: '',
      sentence: score.vibrato === 'wanted' ? 'Vibrato was asked for; none was heard.' : 'No vibrato.',
    };
  }
  const { rateHz, extentCents } = note.vibrato;
  return {
    ...base,
    value: `${fixed(rateHz, 1)} Hz, ${fixed(extentCents, 0)}`,
    unit: 'cents either way',
    sentence:
      score.vibrato === 'none' ? 'Vibrato sounded where none was asked for.' : 'The tone swung regularly.',
  };
}

export function loudness(note: Note): Finding {
  return finding(
    {
      id: 'loudness',
      label: 'Loudness',
      unit: 'dBFS',
      meaning:
        'The middle of the level against the loudest that this microphone can take. It compares takes on one device in one place, not players.',
    },
    note.levelDb,
    note.unknown['levelDb'],
    (value) => ({
      value: fixed(value, 1),
      sentence:
        value > -6
          ? 'Close to the most that the microphone takes.'
          : value < -50
            ? 'Very soft for this microphone; nearer would be better.'
            : 'Well within what the microphone takes.',
    }),
  );
}

export function levelSteadiness(note: Note, limits: Limits): Finding {
  const fade = note.levelDriftDbPerSecond;
  return finding(
    {
      id: 'evenness',
      label: 'Evenness',
      unit: 'dB unsteady',
      meaning:
        'How far the loudness moved about its trend (RMS), whatever the loudness was. The microphone’s own gain control has to be off.',
    },
    note.levelWobbleDb,
    note.unknown['levelWobbleDb'],
    (value) => ({
      value: fixed(value, 1),
      sentence: [
        value < limits.levelWobbleDb ? 'The loudness was even' : 'The loudness was uneven',
        fade === null || Math.abs(fade) < limits.fadeDbPerSecond / 2
          ? '.'
          : `, and it ${fade < 0 ? 'faded' : 'grew'} by ${fixed(Math.abs(fade), 1)} dB a second.`,
      ].join(''),
    }),
  );
}

export function purity(note: Note, wanted: number, limits: Limits): Finding {
  const length = note.endSeconds - note.startSeconds;
  return finding(
    {
      id: 'purity',
      label: 'Purity time',
      unit: `of ${fixed(length, 1)} s`,
      meaning: `How long the tone stayed within ${limits.purityCents} cents and ${limits.purityDb} dB of its own first second, and without vibrato where none was asked for. The figure to follow over weeks.`,
    },
    note.puritySeconds,
    note.unknown['puritySeconds'],
    (value) => ({
      value: `${fixed(value, 1)} s`,
      sentence:
        value >= length - 0.35
          ? value >= wanted - 0.35
            ? 'Pure to the end.'
            : `Pure as long as it lasted; ${fixed(wanted, 1)} s was asked for.`
          : value === 0
            ? 'It was not a plain tone from the start.'
            : `Pure for the first ${fixed(value, 1)} s.`,
    }),
  );
}

export function latency(note: Note, timing: Timing, limits: Limits): Finding {
  const { firstBeatSeconds, roundTrip } = timing;
  const sure =
    roundTrip.how === 'assumed'
      ? 'The way from loudspeaker to microphone could not be heard on this device, so this may be off by some tens of milliseconds.'
      : 'The way from loudspeaker to microphone has been taken off.';
  const value = firstBeatSeconds === null ? null : note.startSeconds - firstBeatSeconds - roundTrip.seconds;
  return finding(
    {
      id: 'latency',
      label: 'Attack',
      unit: 'ms after the beat',
      meaning: `From the beat to where the pitch begins. ${sure}`,
    },
    value,
    'no-beat',
    (late) => ({
      value: fixed(1000 * late, 0),
      sentence:
        Math.abs(late) < limits.rushSeconds
          ? 'On the beat.'
          : `${late > 0 ? 'Late' : 'Early'} by ${fixed(1000 * Math.abs(late), 0)} ms.`,
    }),
  );
}

export function rise(note: Note): Finding {
  return finding(
    {
      id: 'rise',
      label: 'Rise',
      unit: 'ms',
      meaning: 'From a tenth to nine tenths of the amplitude. A live room makes it longer.',
    },
    note.attack.riseSeconds,
    note.unknown['riseSeconds'],
    (value) => ({
      value: fixed(1000 * value, 0),
      sentence:
        value < 0.06 ? 'A quick start.' : value < 0.15 ? 'A soft start.' : 'It took its time to speak.',
    }),
  );
}

export function air(note: Note): Finding {
  return finding(
    {
      id: 'air',
      label: 'Air',
      unit: 'dB against the tone',
      meaning:
        'Noise between the partials against the partials: the further below zero, the clearer. Room noise counts too.',
    },
    note.airinessDb,
    note.unknown['airinessDb'],
    (value) => ({
      value: fixed(value, 0),
      sentence:
        value > -15
          ? 'Much air beside the tone.'
          : value > -25
            ? 'Some air beside the tone.'
            : 'A clear tone.',
    }),
  );
}
