import { modeOf, writtenOf, type Instrument } from '@/core/instruments';
import { partialsAt, PARTIALS, spectrumSeconds, type Frames } from '@/core/hearing/signal';
import { centsBetween, hertzToMidi, midiToHertz } from '@/core/tuning';
import type { Line } from './line';
import type { NoteEvent } from './note';
import { ECHOING_NOTES } from './echoes';
import { soundsBefore } from './newcomers';
import { mergeDebris } from './plateaus';
import { AUDIBLE_IN_ROOM_DB, FittedBelow, type Below } from './below';
import type { Scene } from './scene';
import { hadStopped } from './stopped';
import {
  type Cents,
  type Decibels,
  type Hertz,
  median,
  type Midi,
  quantile,
  type Seconds,
  type Semitones,
} from '@/core/base';
import { onePitchOf, type Plateau } from './plateau';

/** A component at k/n of the sounding mode n counts when it is this near to partial 1 and lasts this long. */
const AUDIBLE_DB: Decibels = -20;
const HOLDS: Seconds = 0.06;
const NEAR_CENTS = 60;
/** A tone of the lower pitch would have partials of its own between those of the note; an undertone has not. */
const NOTHING_BETWEEN_DB: Decibels = -28;
/** The note's own partial 1 is the louder by this, or it would be the undertone. */
const LOUDER_DB: Decibels = 2;
const MOST_RATIO = 9;
const COMES_BACK: Seconds = 0.2;
/** How much louder than on the average the echo of a note may be. */
const ECHO_MARGIN_DB: Decibels = 9;
/** Low notes ring longer than a room does as a whole. */
const RINGS_LONGER = 1.8;
/** A partial this far above all others, and not one of the first two, is no part of a tone. */
const LONELY_DB: Decibels = -30;
const FIRST_LONELY = 2;

/** What is found near that pitch so many frames away from it, and in at least so many: an undertone is the louder by this. */
const NEAR_PITCH: Cents = 400;
const BESIDE = 40;
const FEWEST_ELSEWHERE = 40;
const OVER_NOISE_DB: Decibels = 6;

/** What is shorter may be a blip; what lasts longer below a note heard on both sides of it is a note. */
const SHORTEST: Seconds = 0.1;
const LONGEST: Seconds = 0.6;
/** Frames beside it, and how far a note's first partial may vary where it goes on. */
const EDGE_FRAMES = 12;
const GOES_ON: Decibels = 6;

/**
 * When an undertone is strong, the common period of both is found in the place of the note's. Such plateaus are put
 * back on the note's pitch (in the line too) and joined with what they were part of.
 */
export function liftUndertones(plateaus: readonly Plateau[], scene: Scene): Plateau[] {
  const { line, frames, instrument, a4, rings } = scene;
  const inPlace = plateaus
    .filter((part) => !isOutOfSight(part, frames))
    .map((part, i, all) => {
      const ratio = hiddenRatio(part, frames, instrument);
      if (ratio === 1 || !isHeardBeside(part, ratio, onePitchOf(instrument), all[i - 1], all[i + 1]))
        return part;
      // The tone before it had been stopped: over its echo this begins the next one.
      const isBrief = (part.to - part.from) * frames.hopSeconds < SHORTEST;
      if (rings && isBrief && part.joined && hadStopped(part.from, false, scene)) return part;
      const rise = 12 * Math.log2(ratio);
      for (let i = part.from; i < part.to; i++) {
        line.pitch[i]! += rise;
        line.lifted[i] = ratio;
      }
      return { ...part, pitch: part.pitch + rise };
    });
  const lifted = mergeDebris(inPlace, line, frames.hopSeconds, onePitchOf(instrument));
  if (!rings) return lifted;
  const put = lifted.map((part, i) => {
    const note = noteOver(part, lifted[i - 1], lifted[i + 1], line, frames, instrument, a4);
    if (note === null) return part;
    line.pitch.fill(note, part.from, part.to);
    line.lifted.fill(0, part.from, part.to);
    return { ...part, pitch: note };
  });
  return mergeDebris(put, line, frames.hopSeconds, onePitchOf(instrument));
}

/**
 * In a room the echoes lie between the partials of a note and what sounds below it. The note goes on where it is heard on both sides
 * and its first partial is as loud as there, while of all that is found below it there is one partial and no other.
 * @returns the note's pitch; null where there is none.
 */
function noteOver(
  part: Plateau,
  before: Plateau | undefined,
  after: Plateau | undefined,
  line: Line,
  frames: Frames,
  instrument: Instrument,
  a4: Hertz,
): Midi | null {
  if (!before || !after || !part.joined || !after.joined) return null;
  const note = before.pitch;
  const [onePitch, hop] = [onePitchOf(instrument), frames.hopSeconds];
  if (Math.abs(after.pitch - note) >= onePitch || part.pitch > note - onePitch) return null;
  const seconds = (part.to - part.from) * hop;
  if (seconds < SHORTEST || seconds > LONGEST) return null;
  const mode = modeOf(instrument, writtenOf(instrument, Math.round(note)));
  const below = new FittedBelow(note, mode, soundsBefore(part.from, note, line, hop), frames, a4);
  let under = 0;
  for (let i = part.from; i < part.to; i++) if (below.at(i) !== null) under++;
  const edge = Math.min(EDGE_FRAMES, before.to - before.from);
  const was = median(Array.from({ length: edge }, (_, k) => below.noteDb(before.to - 1 - k)));
  const is = median(Array.from({ length: part.to - part.from }, (_, k) => below.noteDb(part.from + k)));
  return 2 * under > part.to - part.from && is > was - GOES_ON ? note : null;
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
 * beep, a note that the sample rate cannot carry), and only multiples of its period were found. What is briefer than half the window of
 * the spectrum is not seen alone in it.
 */
function isOutOfSight(part: Plateau, frames: Frames): boolean {
  if ((part.to - part.from) * frames.hopSeconds < 0.5 * spectrumSeconds(frames.settings)) return false;
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

/** What may still ring: a note, or what had taken a note's place. */
interface Earlier {
  readonly pitch: Midi;
  /** Frame in which it ended. */
  readonly to: number;
  /** No louder than this when it ended. */
  readonly mostDb: Decibels;
}

/**
 * Components at k/n of a note that sounds in mode n, and are not what still rings of the notes before it.
 * @param wrong what was heard in a note's place; that rings too.
 */
export function undertonesIn(
  notes: readonly Plateau[],
  index: number,
  wrong: readonly NoteEvent[],
  { line, frames, instrument, a4, decaySeconds, rings }: Scene,
): NoteEvent[] {
  const note = notes[index]!;
  const hop = frames.hopSeconds;
  const levelOf = (from: number, to: number) => median(line.levelDb.subarray(from, Math.max(from + 1, to)));
  const before = notes.slice(Math.max(0, index - ECHOING_NOTES), index);
  const since = (before[0] ?? note).from;
  const earlier: Earlier[] = [
    ...before.map(({ pitch, from, to }) => ({ pitch, to, mostDb: levelOf(from, to) + ECHO_MARGIN_DB })),
    ...wrong.flatMap(({ soundingMidi, startSeconds, endSeconds }) => {
      const [from, to] = [Math.round(startSeconds / hop), Math.round(endSeconds / hop)];
      if (soundingMidi === null || from < since || to > note.to) return [];
      // The note went on meanwhile, or its echo did: they are in that level too.
      return [{ pitch: soundingMidi, to, mostDb: levelOf(from, to) }];
    }),
  ];
  const mode = modeOf(instrument, writtenOf(instrument, Math.round(note.pitch)));
  const { every } = frames.settings.spectrum;
  const audible = rings ? AUDIBLE_IN_ROOM_DB : AUDIBLE_DB;
  const isPutOver = line.lifted.subarray(note.from, note.to).includes(0);
  const fitted =
    isPutOver &&
    new FittedBelow(note.pitch, mode, soundsBefore(note.from, note.pitch, line, hop), frames, a4);
  const found = Array.from({ length: note.to - note.from }, (_, i): Below | null => {
    const frame = note.from + i;
    const below =
      fitted && line.lifted[frame] === 0 ? fitted.at(frame) : componentBelow(frame, mode, line, frames);
    const sounds = below && below.levelDb > audible && !Number.isNaN(line.pitch[frame]!);
    return sounds && !echoes(frame, below, earlier, frames, a4, decaySeconds) ? below : null;
  });
  // What beats with its own echo comes and goes: it is told once.
  const apart = Math.max(2 * every, Math.round((rings ? COMES_BACK : 0) / hop));
  const events: NoteEvent[] = [];
  let start = -1;
  let last = -1;
  for (let i = 0; i <= found.length + apart + every; i++) {
    if (found[i]) {
      if (start < 0) start = i;
      last = i;
    } else if (start >= 0 && i - last > apart) {
      const stretch = found.slice(start, last + 1);
      const holds = stretch.filter((below) => below !== null).length * hop >= HOLDS;
      if (holds && !isNoise(stretch, note.from + start, frames, line.floorDb))
        events.push(eventOf(stretch, note.from + start, index, hop, a4));
      start = -1;
    }
  }
  return events;
}

/**
 * Whether what was found below a note is softer than the noise of the room as a whole, and hardly louder than what is found near that
 * pitch at other times of the take: that noise, or a hum.
 */
function isNoise(
  stretch: readonly (Below | null)[],
  from: number,
  frames: Frames,
  floorDb: Decibels,
): boolean {
  const heard = stretch.filter((below) => below !== null);
  const level = median(heard.map(({ absoluteDb }) => absoluteDb));
  if (level > floorDb) return false;
  const hertz = median(heard.map((below) => below.hertz));
  const to = from + stretch.length;
  const elsewhere: Decibels[] = [];
  for (let i = 0; i < frames.count; i++)
    if (
      (i < from - BESIDE || i >= to + BESIDE) &&
      Math.abs(centsBetween(frames.subHz[i]!, hertz)) < NEAR_PITCH
    )
      elsewhere.push(frames.subDb[i]! + partialsAt(frames, i)[0]!);
  return elsewhere.length >= FEWEST_ELSEWHERE && level < median(elsewhere) + OVER_NOISE_DB;
}

/** Whether the component below a note is one of the sounds before it, and no louder than the room lets that one still be. */
function echoes(
  frame: number,
  { hertz, absoluteDb }: Below,
  earlier: readonly Earlier[],
  frames: Frames,
  a4: Hertz,
  decaySeconds: Seconds,
): boolean {
  return earlier.some((sound) => {
    const multiple = hertz / midiToHertz(sound.pitch, a4);
    if (!(Math.abs(1200 * Math.log2(multiple / Math.max(1, Math.round(multiple)))) < NEAR_CENTS))
      return false;
    const since = (frame - sound.to) * frames.hopSeconds - spectrumSeconds(frames.settings);
    return absoluteDb < sound.mostDb - (60 / (RINGS_LONGER * decaySeconds)) * Math.max(0, since);
  });
}

/** What sounds at k/n of the note; null where nothing does. */
function componentBelow(frame: number, mode: number, line: Line, frames: Frames): Below | null {
  const f0 = frames.f0[frame]!;
  const ratio = line.lifted[frame]!;
  const partials = partialsAt(frames, frame);
  if (ratio > 1) {
    // Here the common period was found: the undertone is among the partials below the note.
    const below = partials.subarray(0, ratio - 1);
    const absoluteDb = Math.max(...below);
    return Number.isNaN(absoluteDb)
      ? null
      : {
          hertz: f0 * (below.indexOf(absoluteDb) + 1),
          absoluteDb,
          levelDb: absoluteDb - partials[ratio - 1]!,
        };
  }
  const hertz = frames.subHz[frame]!;
  const levelDb = frames.subDb[frame]!;
  for (let k = 1; k < mode; k++)
    if (Math.abs(centsBetween(hertz, (f0 * k) / mode)) < NEAR_CENTS)
      return { hertz, absoluteDb: levelDb + partials[0]!, levelDb };
  return null;
}

function eventOf(
  stretch: readonly (Below | null)[],
  from: number,
  noteIndex: number,
  hop: Seconds,
  a4: Hertz,
): NoteEvent {
  const heard = stretch.filter((below) => below !== null);
  const levels = heard.map(({ levelDb }) => levelDb);
  // The spectrum sees it come and go within its own window: its ends are where it has half its amplitude.
  const strongest = quantile(levels, 0.75);
  const isStrong = (below: Below | null) => below !== null && below.levelDb > strongest - 6;
  return {
    kind: 'undertone',
    startSeconds: (from + stretch.findIndex(isStrong)) * hop,
    endSeconds: (from + stretch.findLastIndex(isStrong) + 1) * hop,
    soundingMidi: Math.round(hertzToMidi(median(heard.map(({ hertz }) => hertz)), a4)),
    noteIndex,
    confidence: Math.min(1, 0.6 + (strongest - AUDIBLE_DB) / 30),
  };
}
