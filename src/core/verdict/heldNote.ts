import { beatsToSeconds } from '@/core/music';
import type { Note } from '@/core/hearing/notes';
import { displayName } from '@/core/tuning';
import type { Fault, FaultKind } from './fault';
import type { Limits } from './limits';
import { NOTHING, type Part } from './part';
import type { Reading } from './reading';
import { faultAt } from './tone';
import { fixed } from './words';
import { highOrLow } from '@/core/tuning';
import {
  air,
  centre,
  drift,
  latency,
  levelSteadiness,
  loudness,
  purity,
  rise,
  vibrato,
  wobble,
} from './heldNoteFindings';

/** Says what one held note was like. Facts only: causes and remedies are the coach's. */
export function heldNotePart(reading: Reading): Part {
  const { score, instrument, limits, timing, alignment } = reading;
  const match = alignment.matches[0];
  const asked = score.notes[0];
  const note = match?.note == null ? null : reading.notes[match.note]!;
  if (!match || !asked || !note) return NOTHING;
  const wrong = match.state !== 'played';
  const name = displayName(note.soundingMidi - instrument.transposition);
  const wanted = beatsToSeconds(score, asked.beats);
  const others = reading.notes.length - match.parts.length;
  const summary = [
    wrong ? `${displayName(asked.written)} was asked for; ${name} was heard.` : null,
    `${name} lasted ${fixed(note.endSeconds - note.startSeconds, 1)} s${note.centreCents === null ? '' : ` and sat ${highOrLow(note.centreCents)} on average`}.`,
    others > 0
      ? `There ${others === 1 ? 'was' : 'were'} ${others} other ${others === 1 ? 'note' : 'notes'} in the take; the longest that fits counts.`
      : null,
  ];
  return {
    findings: [
      centre(note, name, limits),
      drift(note, limits),
      wobble(note, limits),
      vibrato(note, score),
      loudness(note),
      levelSteadiness(note, limits),
      purity(note, wanted, limits),
      latency(note, timing, limits),
      rise(note),
      air(note),
    ],
    faults: wrong ? [] : faultsOf(reading, note),
    headline: {
      text: wrong ? `${name}, not ${displayName(asked.written)}` : headline(note, limits),
      weight: wrong ? 3 : 1.3,
    },
    summary: summary.filter(Boolean).join(' '),
  };
}

function faultsOf(reading: Reading, note: Note): Fault[] {
  const { limits, alignment, score } = reading;
  const match = alignment.matches[0]!;
  const over = (kind: FaultKind, value: number | null, limit: number, confidence?: number): Fault[] =>
    value !== null && value > limit ? [faultAt(reading, match, kind, value / limit, confidence)] : [];
  const negative = (value: number | null) => (value === null ? null : -value);
  return [
    ...over('steadily-low', negative(note.centreCents), limits.centreCents),
    ...over('steadily-high', note.centreCents, limits.centreCents),
    ...over('sinking', negative(note.driftCentsPerSecond), limits.driftCentsPerSecond),
    ...over('unsteady', note.wobbleCents, limits.wobbleCents),
    ...over('fading-hold', negative(note.levelDriftDbPerSecond), limits.fadeDbPerSecond),
    ...(score.vibrato === 'none' && note.vibrato
      ? [faultAt(reading, match, 'vibrato', 1 + note.vibrato.extentCents / 10)]
      : []),
    ...(note.airinessDb !== null && note.airinessDb > limits.airinessDb
      ? [faultAt(reading, match, 'airy', 1 + (note.airinessDb - limits.airinessDb) / 8, 0.6)]
      : []),
  ];
}

function headline(note: Note, limits: Limits): string {
  if (note.centreCents === null) return 'Heard, in company';
  const place = Math.abs(note.centreCents) < 1 ? 'True' : capital(highOrLow(note.centreCents));
  return `${place} ${remark(note, limits)}`;
}

/** The one thing about the note that is most worth saying after its place. */
function remark(note: Note, limits: Limits): string {
  const { wobbleCents, driftCentsPerSecond, levelDriftDbPerSecond } = note;
  if (wobbleCents === null) return 'and short';
  if (wobbleCents >= limits.wobbleCents) return 'and unsteady';
  if (driftCentsPerSecond !== null && Math.abs(driftCentsPerSecond) >= limits.driftCentsPerSecond) {
    return driftCentsPerSecond > 0 ? 'and rising' : 'and sinking';
  }
  if (levelDriftDbPerSecond !== null && levelDriftDbPerSecond <= -limits.fadeDbPerSecond) return 'and fading';
  return note.vibrato ? 'with vibrato' : 'and steady';
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
