import { modeOf, writtenOf, type Instrument } from '@/core/instruments';
import { partialsAt, PARTIALS, type Frames } from '@/core/hearing/signal';
import {
  centsBetween,
  hertzToMidi,
  midiToHertz,
  type Decibels,
  type Hertz,
  type Seconds,
  type Semitones,
} from '@/core/tuning';
import type { Line } from './line';
import type { NoteEvent } from './note';
import { mergeDebris, onePitchOf, type Plateau } from './plateaus';
import { median, quantile } from '@/core/base';

/** A component at k/n of the sounding mode n counts when it is this near to partial 1 and lasts this long. */
const AUDIBLE_DB: Decibels = -20;
const HOLDS: Seconds = 0.06;
const NEAR_CENTS = 60;
/** A tone of the lower pitch would have partials of its own between those of the note; an undertone has not. */
const NOTHING_BETWEEN_DB: Decibels = -28;
/** The note's own partial 1 is the louder by this, or it would be the undertone. */
const LOUDER_DB: Decibels = 2;
const MOST_RATIO = 5;
/** Notes whose echo may still be heard, and how much louder than on the average it may be. */
const ECHOING_NOTES = 3;
const ECHO_MARGIN_DB: Decibels = 9;
/** Low notes ring longer than a room does as a whole. */
const RINGS_LONGER = 1.2;
/** A partial this far above all others, and not one of the first two, is no part of a tone. */
const LONELY_DB: Decibels = -30;
const FIRST_LONELY = 2;

/**
 * When an undertone is strong, the common period of both is found in the place of the note's. Such plateaus are put
 * back on the note's pitch (in the line too) and joined with what they were part of.
 */
export function liftUndertones(
  plateaus: readonly Plateau[],
  line: Line,
  frames: Frames,
  instrument: Instrument,
): Plateau[] {
  const inPlace = plateaus
    .filter((part) => !isOutOfSight(part, frames))
    .map((part, i, all) => {
      const ratio = hiddenRatio(part, frames, instrument);
      if (ratio === 1 || !isHeardBeside(part, ratio, onePitchOf(instrument), all[i - 1], all[i + 1]))
        return part;
      const rise = 12 * Math.log2(ratio);
      for (let i = part.from; i < part.to; i++) {
        line.pitch[i]! += rise;
        line.lifted[i] = ratio;
      }
      return { ...part, pitch: part.pitch + rise };
    });
  return mergeDebris(inPlace, line, frames.hopSeconds, onePitchOf(instrument));
}

/** Whether the note that would be hidden is heard as itself just before or after: an undertone comes and goes. */
function isHeardBeside(
  part: Plateau,
  ratio: number,
  onePitch: Semitones,
  before?: Plateau,
  after?: Plateau,
): boolean {
  const note = part.pitch + 12 * Math.log2(ratio);
  const same = (other?: Plateau) => other !== undefined && Math.abs(other.pitch - note) < onePitch;
  return (part.joined && same(before)) || (after?.joined === true && same(after));
}

/**
 * Whether all there is of a tone is one upper partial: then what sounds lies above the range that was searched (a whistle, a
 * beep, a note that the sample rate cannot carry), and only multiples of its period were found.
 */
function isOutOfSight(part: Plateau, frames: Frames): boolean {
  const rows = spectraOf(part, frames);
  const alone = rows.filter((row) => {
    let top = 0;
    for (let k = 1; k < PARTIALS; k++) if (row[k]! > row[top]!) top = k;
    return top >= FIRST_LONELY && row.every((level, k) => k === top || !(level > row[top]! + LONELY_DB));
  });
  return 2 * alone.length > rows.length;
}

/** The spectra of a plateau that were read by its pitch; only they can tell. */
function spectraOf(part: Plateau, frames: Frames): Float32Array[] {
  const rows: Float32Array[] = [];
  for (let i = part.from; i < part.to; i += frames.settings.spectrum.every)
    if (!Number.isNaN(frames.airinessDb[i]!)) rows.push(partialsAt(frames, i));
  return rows;
}

/**
 * How many times higher than the found period's the note really is; 1 for an ordinary tone. A tone with weak odd
 * partials looks like its octave over an undertone; only where the octave's mode has such an undertone is it one.
 */
function hiddenRatio(part: Plateau, frames: Frames, instrument: Instrument): number {
  const rows = spectraOf(part, frames);
  if (rows.length < 2) return 1;
  for (let ratio = MOST_RATIO; ratio >= 2; ratio--) {
    const raised = Math.round(part.pitch + 12 * Math.log2(ratio));
    const possible = modeOf(instrument, writtenOf(instrument, raised)) % ratio === 0;
    if (possible && 2 * rows.filter((row) => isHidden(row, ratio)).length > rows.length) return ratio;
  }
  return 1;
}

function isHidden(partials: Float32Array, ratio: number): boolean {
  let own = -Infinity;
  let between = -Infinity;
  for (let k = ratio; k <= PARTIALS; k++) {
    const level = partials[k - 1]!;
    if (Number.isNaN(level)) continue;
    if (k % ratio === 0) own = Math.max(own, level);
    else between = Math.max(between, level);
  }
  const below = Math.max(...partials.subarray(0, ratio - 1));
  return (
    between > -Infinity && between - own < NOTHING_BETWEEN_DB && partials[ratio - 1]! > below + LOUDER_DB
  );
}

/** Components at k/n of a note that sounds in mode n, and are not what still rings of the notes before it. */
export function undertonesIn(
  notes: readonly Plateau[],
  index: number,
  line: Line,
  frames: Frames,
  instrument: Instrument,
  a4: Hertz,
  decaySeconds: Seconds,
): NoteEvent[] {
  const note = notes[index]!;
  const earlier = notes.slice(Math.max(0, index - ECHOING_NOTES), index);
  const mode = modeOf(instrument, writtenOf(instrument, Math.round(note.pitch)));
  const { every } = frames.settings.spectrum;
  const hop = frames.hopSeconds;
  const levels = Float32Array.from({ length: note.to - note.from }, (_, i) =>
    echoes(note.from + i, earlier, line, frames, a4, decaySeconds)
      ? NaN
      : levelBelow(note.from + i, mode, line, frames),
  );
  const events: NoteEvent[] = [];
  let start = -1;
  let last = -1;
  for (let i = 0; i <= levels.length + 3 * every; i++) {
    if (levels[i]! > AUDIBLE_DB && !Number.isNaN(line.pitch[note.from + i]!)) {
      if (start < 0) start = i;
      last = i;
    } else if (start >= 0 && i - last > 2 * every) {
      if ((last - start + 1) * hop >= HOLDS)
        events.push(eventOf(levels, start, last + 1, note, index, frames, a4));
      start = -1;
    }
  }
  return events;
}

/** Whether the component below a note is one of the notes before it, and no louder than the room lets that one still be. */
function echoes(
  frame: number,
  earlier: readonly Plateau[],
  line: Line,
  frames: Frames,
  a4: Hertz,
  decaySeconds: Seconds,
): boolean {
  const below = frames.subHz[frame]!;
  const level = frames.subDb[frame]! + partialsAt(frames, frame)[0]!;
  return earlier.some((note) => {
    const multiple = below / midiToHertz(note.pitch, a4);
    if (!(Math.abs(1200 * Math.log2(multiple / Math.max(1, Math.round(multiple)))) < NEAR_CENTS))
      return false;
    const was = median(line.levelDb.subarray(note.from, note.to));
    const since =
      (frame - note.to) * frames.hopSeconds - frames.settings.spectrum.window / frames.settings.sampleRate;
    return level < was + ECHO_MARGIN_DB - (60 / (RINGS_LONGER * decaySeconds)) * Math.max(0, since);
  });
}

/** Level of what sounds at k/n of the note against the note's partial 1; NaN where nothing does. */
function levelBelow(frame: number, mode: number, line: Line, frames: Frames): Decibels {
  const ratio = line.lifted[frame]!;
  if (ratio > 1) {
    // Here the common period was found: the undertone is among the partials below the note.
    const partials = partialsAt(frames, frame);
    return Math.max(...partials.subarray(0, ratio - 1)) - partials[ratio - 1]!;
  }
  for (let k = 1; k < mode; k++) {
    if (Math.abs(centsBetween(frames.subHz[frame]!, (frames.f0[frame]! * k) / mode)) < NEAR_CENTS)
      return frames.subDb[frame]!;
  }
  return NaN;
}

function eventOf(
  levels: Float32Array,
  from: number,
  to: number,
  note: Plateau,
  noteIndex: number,
  frames: Frames,
  a4: Hertz,
): NoteEvent {
  // The spectrum sees it come and go within its own window: its ends are where it has half its amplitude.
  const strongest = quantile(levels.subarray(from, to), 0.75);
  let first = from;
  let end = to;
  while (first < end && !(levels[first]! > strongest - 6)) first++;
  while (end > first && !(levels[end - 1]! > strongest - 6)) end--;
  const below = median(frames.subHz.subarray(note.from + first, note.from + end));
  return {
    kind: 'undertone',
    startSeconds: (note.from + first) * frames.hopSeconds,
    endSeconds: (note.from + end) * frames.hopSeconds,
    soundingMidi: below === undefined ? null : Math.round(hertzToMidi(below, a4)),
    noteIndex,
    confidence: Math.min(1, 0.6 + (strongest - AUDIBLE_DB) / 30),
  };
}
