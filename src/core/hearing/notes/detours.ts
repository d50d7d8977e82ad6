import { modeOf, writtenOf, writtenRange, soundingOf, type Instrument } from '@/core/instruments';
import { midiToHertz, type Hertz, type Seconds } from '@/core/tuning';
import type { Line } from './line';
import type { NoteEvent } from './note';
import { ONE_PITCH_SEMITONES, type Plateau } from './plateaus';
import { median } from '@/core/base';

/** A plateau longer than this between two of one pitch is a note of its own. */
const LONGEST_BREAK: Seconds = 0.26;
/** A wrong mode within this time of a note's start is a blip. */
const BLIP_WITHIN: Seconds = 0.12;
/** A wrong mode at an onset lasts this long at most, or it is a note. */
const LONGEST_START: Seconds = 0.22;
const SHORTEST_NOTE: Seconds = 0.06;
const SHORTEST_BREAK: Seconds = 0.025;
const SHORTEST_BLIP: Seconds = 0.015;
const SHORTEST_SQUEAK: Seconds = 0.012;
const LEAST_PERIODS = 3;
/** Windows blur the ends of what is brief; this much of the defined length has to be seen. */
const SEEN = 0.5;
/** How near a pitch has to come to a mode of the fingering. */
const MODE_SEMITONES = 0.75;
const LEAST_INTERVAL = 2.6;
/** What is this far below its note is the room or the tongue, not a sound of the instrument's. */
const FAINT_DB = 16;
/** Frames that a mixture of two sounds lasts at most. */
const MIXTURE_FRAMES = 4;
/** Near enough to a multiple for both sounds to repeat with the common period. */
const COMMON_SEMITONES = 0.5;
/** Two sounds that have no period in common are never as periodic as this. */
const CLEAR = 0.94;

export interface Played {
  /** One plateau a note, wrong modes taken into the notes they belong to. */
  readonly notes: Plateau[];
  readonly events: NoteEvent[];
}

type Detour = 'break' | 'squeak';

/**
 * Tells notes from what went wrong inside them. Whether a brief other pitch is a wrong mode is decided by the
 * instrument's modes: it is one when the fingering of the note it belongs to can sound it.
 */
export function separateDetours(
  plateaus: readonly Plateau[],
  line: Line,
  hop: Seconds,
  instrument: Instrument,
  a4: Hertz,
): Played {
  const seconds = (part: Plateau) => (part.to - part.from) * hop;
  const events: NoteEvent[] = [];
  const parts = [...plateaus];
  const detourOf = (brief: Plateau, note: Plateau, atStart = false) =>
    detourKind(brief, note, instrument, atStart);
  const lasts = (brief: Plateau, shortest: Seconds, note: Plateau) =>
    seconds(brief) >= SEEN * Math.max(shortest, LEAST_PERIODS / midiToHertz(brief.pitch, a4)) &&
    (brief.pitch > note.pitch || brief.to - brief.from > 2);
  const report = (kind: NoteEvent['kind'], part: Plateau, note: Plateau) => {
    // A blip comes while the note is still growing.
    if (kind !== 'blip' && levelOf(line, part) < levelOf(line, note) - FAINT_DB) return;
    events.push({
      kind,
      startSeconds: part.from * hop,
      endSeconds: part.to * hop,
      soundingMidi: Math.round(part.pitch),
      noteIndex: null,
      confidence: Math.min(1, 0.6 + seconds(part) * 4),
    });
  };

  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < parts.length && !changed; i++) {
      const here = parts[i]!;
      const before = here.joined ? parts[i - 1] : undefined;
      const after = parts[i + 1]?.joined ? parts[i + 1] : undefined;
      const length = seconds(here);
      if (
        before &&
        after &&
        length < LONGEST_BREAK &&
        Math.abs(before.pitch - after.pitch) < ONE_PITCH_SEMITONES &&
        !isWayTo(here, after, parts[i + 2], line)
      ) {
        if (length >= seconds(before) + seconds(after)) continue;
        const longer = seconds(before) >= seconds(after) ? before : after;
        const atStart = seconds(before) + length <= BLIP_WITHIN;
        const detour = detourOf(here, longer, atStart);
        if (!detour && length >= SHORTEST_NOTE) continue;
        const isBlip = detour === 'break' && atStart;
        if (detour === 'squeak' && seconds(here) >= SEEN * SHORTEST_SQUEAK) report('squeak', here, longer);
        else if (isBlip && lasts(here, SHORTEST_BLIP, longer)) report('blip', here, longer);
        else if (detour === 'break' && lasts(here, SHORTEST_BREAK, longer)) report('break', here, longer);
        parts.splice(i - 1, 3, {
          from: before.from,
          to: after.to,
          joined: before.joined,
          pitch: longer.pitch,
        });
        changed = true;
      } else if (after && isStartOf(length, seconds(after), before !== undefined)) {
        const detour = isMixture(here, before, after, line) ? null : detourOf(here, after, true);
        if (!detour) {
          const late = before === undefined && isFraction(here, after);
          if (length >= SHORTEST_NOTE && !late) continue;
          // No mode of the note: the way from one pitch to the next, or a tone that has not yet settled.
          parts.splice(i, 1);
          parts[i] = { ...after, joined: here.joined };
          changed = true;
          continue;
        }
        if (detour === 'squeak' && seconds(here) >= SEEN * SHORTEST_SQUEAK) report('squeak', here, after);
        else if (detour === 'break' && lasts(here, SHORTEST_BLIP, after))
          report(length <= BLIP_WITHIN * 1.1 ? 'blip' : 'break', here, after);
        parts.splice(i, 2, { from: here.from, to: after.to, joined: here.joined, pitch: after.pitch });
        changed = true;
      } else if (before && !after && length < BLIP_WITHIN && seconds(before) > length) {
        const detour = detourOf(here, before);
        if (!detour && length >= SHORTEST_NOTE) continue;
        if (detour === 'squeak') report('squeak', here, before);
        else if (detour === 'break' && lasts(here, SHORTEST_BREAK, before)) report('break', here, before);
        parts.splice(i - 1, 2, { ...before, to: here.to });
        changed = true;
      }
    }
  }
  return { notes: parts.filter((part) => seconds(part) >= SHORTEST_NOTE), events };
}

/** Whether a brief pitch can be the start of the note after it: alone at an onset it may last longer than within a line. */
function isStartOf(length: Seconds, following: Seconds, inLine: boolean): boolean {
  if (following <= length) return false;
  return length <= BLIP_WITHIN * 1.1 || (!inLine && length <= LONGEST_START && following >= 3 * length);
}

/** Whether a pitch is a half or a third of the note's: at an onset a tone repeats itself only every few periods. */
function isFraction(brief: Plateau, note: Plateau): boolean {
  return [2, 3].some((n) => Math.abs(note.pitch - brief.pitch - 12 * Math.log2(n)) < COMMON_SEMITONES);
}

function levelOf({ hopDb }: Line, part: Plateau): number {
  return median(hopDb.subarray(part.from, part.to));
}

/** What a brief pitch is to a note: another mode of its fingering, a squeak above all notes, or nothing of the kind. */
function detourKind(brief: Plateau, note: Plateau, instrument: Instrument, atStart: boolean): Detour | null {
  const top = soundingOf(instrument, writtenRange(instrument).high);
  const mode = modeOf(instrument, writtenOf(instrument, Math.round(note.pitch)));
  const aboveAll = brief.pitch > top + 0.8 && brief.pitch > note.pitch;
  const step = instrument.series === 'odd' ? 2 : 1;
  // Inside a note what lies above all others is more likely a squeak near a mode than so high a mode.
  const highest = mode + (aboveAll ? (atStart ? 2 : 1) : 3) * step;
  for (let other = 1; other <= highest; other += step) {
    // High modes lie so near to each other that a neighbour cannot be told from a neighbouring note.
    if (Math.abs(12 * Math.log2(other / mode)) < LEAST_INTERVAL) continue;
    const expected = note.pitch + 12 * Math.log2(other / mode);
    if (Math.abs(brief.pitch - expected) > MODE_SEMITONES) continue;
    return 'break';
  }
  return aboveAll ? 'squeak' : null;
}

/**
 * What seems to come back after a wrong mode may be the common period of that mode and the next note: an octave slurred
 * up by way of the mode above has the pitch of its lower note between the two.
 */
function isWayTo(brief: Plateau, back: Plateau, next: Plateau | undefined, line: Line): boolean {
  return next?.joined === true && isMixture(back, brief, next, line);
}

/**
 * While one sound gives way to another both are there, and their common period, lower than either, can be found for a
 * frame or two. It is nobody's note.
 */
function isMixture(brief: Plateau, before: Plateau | undefined, after: Plateau, line: Line): boolean {
  if (!before || brief.to - brief.from > MIXTURE_FRAMES) return false;
  if (brief.pitch > before.pitch - 1 || brief.pitch > after.pitch - 1) return false;
  const multiple = (part: Plateau) => {
    const ratio = 2 ** ((part.pitch - brief.pitch) / 12);
    return Math.abs(12 * Math.log2(ratio / Math.round(ratio))) < COMMON_SEMITONES;
  };
  return (multiple(before) && multiple(after)) || median(line.clarity.subarray(brief.from, brief.to)) < CLEAR;
}
