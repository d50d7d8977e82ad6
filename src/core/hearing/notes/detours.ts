import type { Midi, Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import {
  ECHOING_NOTES,
  isBlend,
  isOfBoth,
  isPeriodOfBoth,
  multipleOf,
  ringingSeconds,
  ringsBelow,
} from './echoes';
import { hopMean } from './gaps';
import { ownSeconds, type Line } from './line';
import { detourKind, isAboveAll, modeNear } from './modes';
import type { NoteEvent } from './note';
import type { Scene } from './scene';
import { hadStopped } from './stopped';
import { endIn, ToldDetours } from './toldDetours';
import { SHORTEST_NOTE, onePitchOf, type Plateau } from './plateau';
import type { Replacement } from './replacement';

/** A plateau longer than this between two of one pitch is a note of its own. */
const LONGEST_BREAK: Seconds = 0.26;
/** A wrong mode within this time of a note's start is a blip. */
const BLIP_WITHIN: Seconds = 0.12;
/** What is found to last no longer may be one: windows blur its end. */
const LONGEST_BLIP: Seconds = 1.1 * BLIP_WITHIN;
/** A wrong mode at an onset lasts this long at most, or it is a note. */
const LONGEST_START: Seconds = 0.22;
/** Where it rings, a briefer one may be how two sounds meet. */
const SHORTEST_BREAK = { dry: 0.025, inEcho: 0.06 } as const;
const SHORTEST_BLIP: Seconds = 0.015;
const SHORTEST_SQUEAK: Seconds = 0.012;
const LEAST_PERIODS = 3;
const SHORTEST_IN_ECHO: Seconds = 0.024;
const ECHO_SHARE = 0.06;
/** Windows blur the ends of what is brief; this much of the defined length has to be seen. */
const SEEN = 0.5;
const LEVEL_FRAMES = 3;

export interface Played {
  /** One plateau a note, wrong modes taken into the notes they belong to. */
  readonly notes: Plateau[];
  readonly events: NoteEvent[];
  /** Blips that do not stand by themselves. */
  readonly faint: NoteEvent[];
}

/**
 * Tells notes from what went wrong inside them. Whether a brief other pitch is a wrong mode is decided by the
 * instrument's modes: it is one when the fingering of the note it belongs to can sound it.
 */
export function separateDetours(
  plateaus: readonly Plateau[],
  squeaks: readonly Replacement[],
  scene: Scene,
): Played {
  const { line, frames, instrument, a4, decaySeconds, rings } = scene;
  const hop = frames.hopSeconds;
  const ringing = ringingSeconds(decaySeconds);
  const onePitch = onePitchOf(instrument);
  // Where it rings, the ways that two sounds can meet for a moment are too many for a moment to be told from them.
  const least = Math.min(SHORTEST_IN_ECHO, ECHO_SHARE * decaySeconds);
  const shortestBreak = SHORTEST_BREAK[rings ? 'inEcho' : 'dry'];
  const seconds = (part: Plateau) => (part.to - part.from) * hop;
  const told = new ToldDetours(scene, squeaks);
  const parts = [...plateaus];
  /** In a room: the echo of a note just before, or an upper partial that a tone which is only beginning shows first. */
  const isOfRoom = (brief: Plateau, note: Plateau) =>
    rings &&
    ((isAboveAll(brief.pitch, note.pitch, instrument) && multipleOf(brief.pitch, note.pitch) !== null) ||
      plateaus.some(
        (earlier) =>
          earlier.to <= brief.from &&
          (brief.from - earlier.to) * hop < ringing &&
          (Math.abs(earlier.pitch - brief.pitch) < onePitch || isPeriodOfBoth(brief, earlier, note, frames)),
      ));
  const detourOf = (brief: Plateau, note: Plateau, atStart = false) =>
    isOfRoom(brief, note) ? null : detourKind(brief.pitch, note.pitch, instrument, atStart);
  const lasts = (brief: Plateau, shortest: Seconds, note: Plateau) =>
    seconds(brief) >=
      Math.max(least, SEEN * shortest, (SEEN * LEAST_PERIODS) / midiToHertz(brief.pitch, a4)) &&
    (brief.pitch > note.pitch || brief.to - brief.from > 2);
  const report = (kind: NoteEvent['kind'], part: Plateau, note: Plateau | null) =>
    told.tell(kind, part, note, parts);

  /** In a room the note before is still heard while the next one has begun, and for a moment again instead of it. */
  const hasBegun = (brief: Pick<Plateau, 'from' | 'pitch'>, until: number, next: Plateau) =>
    rings && Math.abs(next.pitch - brief.pitch) < onePitch && (until - brief.from) * hop <= ringing;

  /** Over what rings on, a note that lies in its partials hides until the echo is faint; those of its own are heard first. */
  const isHiddenNote = (brief: Plateau, note: Midi, next: Plateau) =>
    rings &&
    (next.from - brief.from) * hop <= ringing &&
    next.pitch - note > onePitch &&
    multipleOf(next.pitch, note) !== null &&
    multipleOf(brief.pitch, next.pitch) !== null;
  const ownLength = (part: Plateau, note: Plateau) => (endIn(part, note, scene) - part.from) * hop;
  /** In a room a tone goes on being heard when the tongue has stopped it, and the blip that begins the next seems to lie within it. */
  const beginsAgain = ({ from, pitch }: Pick<Plateau, 'from' | 'pitch'>, note: Midi) =>
    rings && hadStopped(from, pitch > note, scene);
  /** Whether a part shorter than the next is what that one and the one before it make together. */
  const isMadeOfBoth = (i: number) => {
    const [before, brief, after] = [parts[i - 1], parts[i]!, parts[i + 1]];
    if (!before || !after?.joined || seconds(brief) >= seconds(after)) return false;
    // Where nothing rings a silence parts the two.
    if (!brief.joined && !rings) return false;
    const stillSounds = (earlier: Plateau) => rings && (brief.to - earlier.to) * hop <= ringing;
    return (
      (stillSounds(before) && isBlend(brief, before, after, line)) ||
      isOfBoth(
        brief,
        before,
        after,
        frames,
        ringing,
        seconds(brief) <= LONGEST_BLIP && modeNear(brief.pitch, after.pitch, instrument) !== undefined,
      ) ||
      parts
        .slice(Math.max(0, i - ECHOING_NOTES), i)
        .some((earlier) => stillSounds(earlier) && isPeriodOfBoth(brief, earlier, after, frames))
    );
  };
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < parts.length && !changed; i++) {
      const here = parts[i]!;
      const before = here.joined ? parts[i - 1] : undefined;
      const after = parts[i + 1]?.joined ? parts[i + 1] : undefined;
      const length = seconds(here);
      const next = parts[i + 2];
      const ofBoth = isMadeOfBoth(i);
      const isInLine = () => before !== undefined && !beginsAgain(here, (after ?? before).pitch);
      if (next?.joined && after && hasBegun(here, after.to, next)) {
        parts.splice(i, 3, { ...next, from: here.from, joined: here.joined });
        changed = true;
        continue;
      }
      if (
        before &&
        after &&
        length < LONGEST_BREAK &&
        Math.abs(before.pitch - after.pitch) < onePitch &&
        !isWayTo(here, after, parts[i + 2], frames, ringing)
      ) {
        if (length >= seconds(before) + seconds(after)) continue;
        const longer = seconds(before) >= seconds(after) ? before : after;
        const atStart = seconds(before) + length <= BLIP_WITHIN;
        // Where echoes add up badly a note can be left to its upper partials for a moment: it is still there below them.
        const isOwn =
          multipleOf(here.pitch, longer.pitch) !== null && ringsBelow(here, longer, longer, frames);
        const detour = rings && isOwn ? null : detourOf(here, longer, atStart);
        if (!detour && !isOwn && length >= SHORTEST_NOTE) continue;
        const again =
          detour === 'break' &&
          beginsAgain(here, longer.pitch) &&
          seconds(before) >= SHORTEST_NOTE &&
          isLouderThanBefore(after, here.from, line);
        const isBlip = detour === 'break' && (atStart || again);
        if (detour === 'squeak' && lasts(here, SHORTEST_SQUEAK, longer)) report('squeak', here, longer);
        else if (isBlip && lasts(here, SHORTEST_BLIP, longer)) report('blip', here, longer);
        else if (detour === 'break' && lasts(here, shortestBreak, longer)) report('break', here, longer);
        if (again) parts.splice(i, 2, { ...after, from: here.from, joined: false });
        else {
          // On its way back a pitch may be found for a moment that is nearly the note's.
          const isOnWay = seconds(after) < SHORTEST_NOTE && next?.joined;
          const back = isOnWay && Math.abs(next.pitch - longer.pitch) < onePitch ? next : after;
          parts.splice(i - 1, back === after ? 3 : 4, {
            from: before.from,
            to: back.to,
            joined: before.joined,
            pitch: longer.pitch,
          });
        }
        changed = true;
      } else if (after && (ofBoth || isStartOf(length, ownLength(here, after), seconds(after), isInLine))) {
        const detour = ofBoth ? null : detourOf(here, after, true);
        if (!detour) {
          const late = isFraction(here, after) && !isInLine();
          if (length >= SHORTEST_NOTE && !late && !ofBoth) continue;
          // No mode of the note: the way from one pitch to the next, or a tone that has not yet settled.
          parts.splice(i, 1);
          // What is made of both is heard once the second sounds; an echo of the first alone, before it.
          const isEcho = ofBoth && Math.abs(here.pitch - parts[i - 1]!.pitch) < onePitch;
          const from = ofBoth && !isEcho ? here.from : after.from;
          parts[i] = { ...after, from, joined: here.joined };
          changed = true;
          continue;
        }
        // While a window holds two notes, what it finds may be of neither.
        const isOwn = length > ownSeconds(frames);
        if (detour === 'squeak' && isOwn && lasts(here, SHORTEST_SQUEAK, after))
          report('squeak', here, after);
        else if (detour === 'break' && lasts(here, SHORTEST_BLIP, after))
          report(ownLength(here, after) <= LONGEST_BLIP ? 'blip' : 'break', here, after);
        parts.splice(i, 2, { from: here.from, to: after.to, joined: here.joined, pitch: after.pitch });
        changed = true;
      } else if (before && !after && length < BLIP_WITHIN && seconds(before) > length) {
        const detour = detourOf(here, before);
        if (!detour && length >= SHORTEST_NOTE) continue;
        if (detour === 'squeak') report('squeak', here, before);
        else if (detour === 'break' && lasts(here, shortestBreak, before)) report('break', here, before);
        parts.splice(i - 1, 2, { ...before, to: here.to });
        changed = true;
      }
    }
  }
  /** Cuts the note in which something else sounds where that begins the next one. @returns whether it does. */
  const isBegunBy = (here: Plateau): boolean => {
    const around = parts.findIndex(({ from, to }) => from < here.from && to > here.to);
    const whole = parts[around];
    if (!whole || !beginsAgain(here, whole.pitch) || (here.from - whole.from) * hop < SHORTEST_NOTE)
      return false;
    parts.splice(around, 1, { ...whole, to: here.from }, { ...whole, from: here.from, joined: false });
    return true;
  };
  for (const { note, ...squeak } of squeaks) {
    const here = { ...squeak, joined: true };
    const next = plateaus.find(({ from }) => from >= here.to);
    if (next && (hasBegun(here, next.from, next) || isHiddenNote(here, note, next))) continue;
    if (told.isTold(here)) continue;
    // So high a mode may be one of the fingering's.
    const kind = detourKind(here.pitch, note, instrument, false) ?? 'squeak';
    report(kind === 'break' && isBegunBy(here) ? 'blip' : kind, here, null);
  }
  const notes = parts.filter((part) => seconds(part) >= SHORTEST_NOTE);
  return { notes, ...told.in(notes) };
}

/** Whether a part gets louder than it was just before a frame: what only rings on has one partial left for a moment, and goes on falling. */
function isLouderThanBefore({ from, to }: Plateau, frame: number, { hopDb }: Line): boolean {
  const level = (i: number) => hopMean(hopDb, i, LEVEL_FRAMES);
  const before = level(frame - LEVEL_FRAMES);
  for (let i = from; i < to; i++) if (level(i) > before) return true;
  return false;
}

/**
 * Whether a brief pitch can be the start of the note after it: alone at an onset it may last longer than within a line.
 * @param own how long it sounds by itself.
 */
function isStartOf(length: Seconds, own: Seconds, following: Seconds, isInLine: () => boolean): boolean {
  if (following <= length || length > LONGEST_START) return false;
  return own <= LONGEST_BLIP || (following >= 3 * length && !isInLine());
}

/** Whether a pitch is a half or a third of the note's: at an onset a tone repeats itself only every few periods. */
function isFraction(brief: Plateau, note: Plateau): boolean {
  const n = multipleOf(note.pitch, brief.pitch);
  return n === 2 || n === 3;
}

/**
 * What seems to come back after a wrong mode may be the common period of that mode and the next note: an octave slurred
 * up by way of the mode above has the pitch of its lower note between the two. */
function isWayTo(
  brief: Plateau,
  back: Plateau,
  next: Plateau | undefined,
  frames: Frames,
  ringing: Seconds,
): boolean {
  return next?.joined === true && isOfBoth(back, brief, next, frames, ringing);
}
