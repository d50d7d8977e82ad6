import type { Cents, Decibels, Seconds } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { blurOf } from '@/core/hearing/room';
import type { Reason } from '../figure';
import type { Reading } from '../reading';
import { hiddenSwing, swingError } from './hiddenSwing';

/** Time after which an irregular wander of the pitch has forgotten itself. */
const WANDER: Seconds = 0.3;
/** Wobble of a note that is too short for it to be told. */
const USUAL_WOBBLE: Cents = 2;

const readings = (note: Note) => Math.max(1, lengthOf(note) / WANDER);
/** Standard error of a note's centre, by how much it wanders and how long it lasts; and what a swing that is not seen may add. */
export const centreError = (reading: Reading, note: Note): Cents =>
  (note.wobbleCents ?? USUAL_WOBBLE) / Math.sqrt(readings(note)) + swingError(reading, note);
/** What is left of a swing when its middle is taken, as a share. */
const SWING_LEFT = 0.1;
/** Standard error of a slope through a wandering note: σ·√12 / (T·√n), cents a second; and what a swing leaves. */
export const driftError = (note: Note): number =>
  ((note.wobbleCents ?? USUAL_WOBBLE) * Math.sqrt(12)) / (lengthOf(note) * Math.sqrt(readings(note))) +
  (SWING_LEFT * (note.vibrato?.extentCents ?? 0)) / lengthOf(note);

/** Where echoes ring they pull at a held note's pitch, now up, now down: a still tone wobbles by as much there. */
const ROOM_WOBBLE: Cents = 3;

/** @param inNode how many times as much the room does to the note as to most: see nodes.ts. */
export const roomWobble = ({ room }: Pick<Reading, 'room'>, inNode: number): Cents =>
  blurOf(room.decaySeconds) > 0 ? ROOM_WOBBLE * inNode : 0;

/**
 * Noise pulls at the pitch of a soft note too: at most by so much where it is NOISY_DB under the note. Over that it goes with the
 * amplitude of the noise; under it a window may take the noise for the note, and it goes with its power. Held tones in white noise, six
 * instruments: 4 cents at 16 dB, 10 at 11; in a room, with the fundamental in a node, 12 at 15 and 32 at 9, a low note 9 at 20.
 */
const NOISE_WOBBLE: Cents = 12;
const NOISY_DB = 15;
const noiseWobble = (overFloorDb: Decibels): Cents =>
  NOISE_WOBBLE * 10 ** ((NOISY_DB - overFloorDb) / (overFloorDb > NOISY_DB ? 20 : 10));

/**
 * A wobble that is over its limit with what room and noise can make, and within it without, is not known to be the player's; nor what may
 * be a swing that is too short to be seen as one.
 * @returns why it is not known; null where it is.
 */
export function wobbleHiddenBy(
  note: Note & { readonly wobbleCents: Cents },
  reading: Reading,
  inNode: number,
): Reason | null {
  const { wobbleCents, levelDb } = note;
  const { conditions, limits } = reading;
  if (wobbleCents <= limits.wobbleCents) return null;
  if (wobbleCents <= hiddenSwing(reading, note)) return 'vibrato';
  const room = roomWobble(reading, inNode);
  const noise = levelDb === null ? 0 : noiseWobble(levelDb - conditions.floorDb);
  if (wobbleCents ** 2 - room ** 2 - noise ** 2 > limits.wobbleCents ** 2) return null;
  return room > 0 ? 'room' : 'too-noisy';
}

/** Whether the wobble of a note is told. */
export const hasWobble = (note: Note): note is Note & { readonly wobbleCents: Cents } =>
  note.wobbleCents !== null;
