import type { Instrument } from '@/core/instruments';
import { midiToHertz } from '@/core/tuning';
import type { Line } from './line';
import { type Hertz, median, type Seconds, type Semitones } from '@/core/base';
import { multipleOf } from './echoes';
import { hopMean } from './gaps';
import { areLost } from './lost';
import { interruptionsWithin } from './restarts';
import { hadStopped } from './stopped';
import { withinSwings } from './swings';
import { withoutNulls } from './nulls';
import type { Scene } from './scene';
import type { Doubt, Replacement } from './replacement';
import { onePitchOf, type Plateau } from './plateau';

/** Time over which a plateau's own pitch is followed, so that a slow bend stays one. */
const FOLLOW: Seconds = 0.3;
const FEWEST_FRAMES = 2;
/** A fall this deep between two pitches is the tongue's work. */
const STOP_DB = 30;
/** Where no pitch is found for no longer than this, and the level falls by less, nothing stopped. */
const LONGEST_UNHEARD: Seconds = 0.12;
const FALLS_DB = 4;
const OVER_NOISE_DB = 10;
/** What begins has grown by then. */
const GROWS: Seconds = 0.1;
/** For so long a note may go on being found while its octave has begun over its echo. */
const HIDES: Seconds = 0.25;
/** A note begun again lasts as long. */
const SHORTEST_AGAIN: Seconds = 0.09;
/** Frames around a squeak in which the note that it interrupts does not carry on. */
const NEAR_SQUEAK = 11;
/** Faster than any vibrato or bend, in semitones a frame: the pitch does not swing there, it changes. */
const LEAP = 0.18;
/** So far, in steps, it has to have leapt: in a room a wide vibrato leaps too, but not to the next note. */
const LEAPT_STEPS = 0.72;
/** Further than this from where it was it is another pitch, however it came there. */
const FAR_STEPS = 1.25;
/** Where notes lie nearer together than vibrato swings, only beyond it, from end to end while a note is young, … */
const FAR_SEMITONES = { from: { middle: 1.05, end: 1.3 } } as const;
/** … or when it is away for longer than half a swing. */
const SWINGS_BACK: Seconds = 0.1;
/** A pitch that has glided away is another when it stays there for this long, within so much. */
const STAYS: Seconds = 0.12;
const STAYS_SEMITONES = 0.3;
/** With vibrato it is told by staying for longer: a glide would have gone on. */
const STAYS_SWINGING: Seconds = 0.24;
const GOES_ON_SEMITONES = 0.4;

/**
 * Cuts the line where the pitch leaves, where the sound stops, and where the tongue repeats a note.
 */
export function plateausOf(
  scene: Scene,
  squeaks: readonly Replacement[],
  doubts: readonly Doubt[],
): Plateau[] {
  const { line, frames, instrument, a4, decaySeconds, rings } = scene;
  const hop = frames.hopSeconds;
  const raw = withoutSpecks(byPitch(line, hop, instrument.step, a4)).map((part, i, all) => {
    const before = all[i - 1];
    return before && part.joined && stopsBetween(line, before, part, hop) ? { ...part, joined: false } : part;
  });
  const parts: Plateau[] = [];
  /** Where the part that comes next began, while what came before it still rang over it. */
  let begun: number | null = null;
  const onePitch = onePitchOf(instrument);
  const sounding = mergeDebris(rings ? withoutNulls(raw, hop) : raw, line, hop, onePitch);
  const swung = withinSwings(sounding, line, hop, decaySeconds);
  swung.forEach((part, i, all) => {
    const before = parts[parts.length - 1];
    const isBegun =
      begun !== null && hadStopped(begun, before !== undefined && part.pitch > before.pitch, scene);
    const whole = begun === null ? part : { ...part, from: begun, joined: part.joined && !isBegun };
    begun = null;
    const next = all[i + 1]?.joined ? all[i + 1] : undefined;
    const starts = interruptionsWithin(scene, part.from, part.to, doubts)
      .filter(
        (stop) =>
          (stop.to - whole.from) * hop >= SHORTEST_AGAIN &&
          !areLost(stop.from, stop.to, frames) &&
          !squeaks.some(({ from, to }) => from < stop.to + NEAR_SQUEAK && to > stop.from - NEAR_SQUEAK),
      )
      .map(({ to }) => to);
    const last = starts[starts.length - 1];
    if (last !== undefined && next && (part.to - last) * hop < HIDES) {
      // An octave above a note is all in its partials: while the note rings on, its pitch is found.
      if (rings && multipleOf(next.pitch, part.pitch) !== null) begun = last;
      if (begun !== null || (part.to - last) * hop < SHORTEST_AGAIN) starts.pop();
    } else if (last !== undefined && (part.to - last) * hop < SHORTEST_AGAIN) starts.pop();
    const end = begun ?? part.to;
    [whole.from, ...starts].forEach((from, k, cuts) => {
      const to = cuts[k + 1] ?? end;
      parts.push(k === 0 && to === part.to ? whole : withPitch(line, from, to, k === 0 && whole.joined));
    });
  });
  return parts;
}

/** A plateau over these frames, `to` excluded; its pitch is their median. */
export function withPitch(line: Line, from: number, to: number, joined: boolean): Plateau {
  return { from, to, joined, pitch: median(line.pitch.subarray(from, to)) };
}

function byPitch(line: Line, hop: Seconds, step: Instrument['step'], a4: Hertz): Plateau[] {
  const { pitch, dropout: longest } = line;
  const onePitch = onePitchOf({ step });
  const dropout = Math.round(longest / hop);
  const follow = Math.round(FOLLOW / hop);
  const stays = Math.round(STAYS / hop);
  const swings = Math.round(STAYS_SWINGING / hop);
  const farAfter = (frames: number) =>
    step === 1 ? FAR_STEPS : FAR_SEMITONES.from[frames < swings ? 'end' : 'middle'];
  const leapStays = step < 1 ? Math.round(SWINGS_BACK / hop) : 0;
  const parts: Plateau[] = [];
  let from = -1;
  let last = -1;
  let centre = NaN;
  let joined = false;
  /** Since when the pitch is away from the centre, -1 while it is near, and whether it leapt there. */
  let away = -1;
  let leapt = false;
  const close = (to: number) => {
    if (from >= 0) parts.push({ from, to, joined, pitch: median(pitch.subarray(from, to)) });
    from = -1;
  };
  for (let i = 0; i < pitch.length; i++) {
    const value = pitch[i]!;
    if (Number.isNaN(value)) continue;
    const isApart = last >= 0 && i - last - 1 > dropout && !goesOn(line, last, i, hop, a4);
    if (from >= 0 && isApart) close(last + 1);
    else if (from >= 0) {
      const off = Math.abs(value - centre);
      if (Math.abs(value - pitch[last]!) >= LEAP) leapt = true;
      if (off <= onePitch) {
        // What swung out and came back without a leap is part of it.
        away = -1;
        if (off < 0.5 * onePitch) leapt = false;
      } else {
        if (away < 0) away = i;
        const rests =
          (i - away >= stays && spanOf(pitch, i - stays + 3, i + 1) < STAYS_SEMITONES) ||
          (i - away >= swings && driftOf(pitch, away, i + 1) < GOES_ON_SEMITONES);
        const far = farAfter(i - from);
        const leaps = leapt && off > LEAPT_STEPS * step && i - away >= leapStays;
        if (leaps || off > far || rests) {
          const sudden = leapt && !rests && (leapStays === 0 || off > far);
          close(sudden ? i : away);
          if (!sudden) {
            from = away;
            joined = true;
            centre = median(pitch.subarray(away, i + 1));
          }
        }
      }
    }
    if (from < 0) {
      from = i;
      joined = last >= 0 && !isApart;
      centre = value;
      away = -1;
      leapt = false;
    } else if ((away < 0 || i - away > swings) && (i - from < 8 || (i - from) % 4 === 0)) {
      // While it is open whether this is another pitch, it is held against what was before.
      centre = median(pitch.subarray(Math.max(from, i - follow), i + 1));
    }
    last = i;
  }
  close(last + 1);
  return parts;
}

/**
 * Whether sound goes on between two frames, while no pitch is found: another mode of a low note may be gone before a window holds
 * nothing else, and no level falls meanwhile.
 */
function goesOn(line: Line, last: number, next: number, hop: Seconds, a4: Hertz): boolean {
  const { pitch, levelDb, hopDb, floorDb } = line;
  if ((next - last) * hop > LONGEST_UNHEARD) return false;
  const period = Math.ceil(1 / (midiToHertz(Math.min(pitch[last]!, pitch[next]!), a4) * hop));
  const least = Math.min(levelDb[last]!, levelDb[next]!) - FALLS_DB;
  // The noise of the house never falls.
  if (least < floorDb + OVER_NOISE_DB) return false;
  for (let i = last + 1; i < next; i++) if (hopMean(hopDb, i, period) < least) return false;
  return true;
}

function spanOf(values: Float64Array, from: number, to: number): number {
  let least = Infinity;
  let most = -Infinity;
  for (let i = from; i < to; i++) {
    if (Number.isNaN(values[i]!)) continue;
    least = Math.min(least, values[i]!);
    most = Math.max(most, values[i]!);
  }
  return most - least;
}

/** How far the pitch has gone from the first half of a stretch to the second. */
function driftOf(values: Float64Array, from: number, to: number): number {
  const middle = (from + to) >> 1;
  return Math.abs(median(values.subarray(from, middle)) - median(values.subarray(middle, to)));
}

/** Leaves out single frames on the way from one pitch to the next; what they joined stays joined. */
function withoutSpecks(parts: Plateau[]): Plateau[] {
  const kept: Plateau[] = [];
  let bridged = true;
  for (const part of parts) {
    bridged = bridged && part.joined;
    if (part.to - part.from < FEWEST_FRAMES) continue;
    kept.push({ ...part, joined: kept.length > 0 && bridged });
    bridged = true;
  }
  return kept;
}

/** Whether the sound stops, however shortly, between two plateaus: a speck in a silence, or a brief start, is held to what it grows into. */
function stopsBetween({ hopDb, levelDb }: Line, before: Plateau, after: Plateau, hop: Seconds): boolean {
  const middle = (part: Plateau) => levelDb[(part.from + part.to) >> 1]!;
  const grown = Math.max(...levelDb.subarray(after.from, after.from + Math.round(GROWS / hop)));
  const quieter = Math.min(middle(before), Math.max(middle(after), grown));
  for (let i = Math.max(before.from, before.to - 3); i < Math.min(after.to, after.from + 3); i++) {
    if (hopDb[i]! < quieter - STOP_DB) return true;
  }
  return false;
}

/** Joins neighbours of one pitch that only a frame or two of something else had parted. */
export function mergeDebris(parts: Plateau[], line: Line, hop: Seconds, onePitch: Semitones): Plateau[] {
  const merged: Plateau[] = [];
  for (const part of parts) {
    const before = merged[merged.length - 1];
    const near = before && part.joined && (part.from - before.to) * hop <= line.dropout;
    if (before && near && Math.abs(before.pitch - part.pitch) < onePitch) {
      const share = (part.to - part.from) / (part.to - before.from);
      const pitch = before.pitch + share * (part.pitch - before.pitch);
      merged[merged.length - 1] = { ...before, to: part.to, pitch };
    } else merged.push(part);
  }
  return merged;
}
