import type { Cents, Decibels } from '@/core/base';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { hasWobble, LEAST_FADE, mayFadeInRoom, roomWobble, wobbleHiddenBy, type InNode } from './measures';
import type { Reading } from './reading';

/** How a note was held. */
export type Manner =
  | { readonly kind: 'vibrato'; readonly cents: Cents }
  | { readonly kind: 'unsteady'; readonly cents: Cents }
  | { readonly kind: 'moved'; readonly cents: Cents }
  | { readonly kind: 'level'; readonly dB: Decibels }
  | { readonly kind: 'steady' | 'short' };

/** A pitch that moves by less over a whole note is not worth a word, however short the note. */
const LEAST_SAG: Cents = 4;

/** How a note was held, the worst first; null where echoes or noise alone could have made it so. */
export function mannerOf(note: Note, reading: Reading, inNode: InNode): Manner | null {
  const { wobbleCents, fadeDbPerSecond, driftCentsPerSecond } = reading.limits;
  if (note.vibrato) return { kind: 'vibrato', cents: note.vibrato.extentCents };
  if (hasWobble(note) && note.wobbleCents > wobbleCents)
    return wobbleHiddenBy(note, reading, inNode(note)) ? null : { kind: 'unsteady', cents: note.wobbleCents };
  const seconds = lengthOf(note);
  const cents = (note.driftCentsPerSecond ?? 0) * seconds;
  const dB = (note.levelDriftDbPerSecond ?? 0) * seconds;
  const least = Math.max(LEAST_SAG, Math.min(driftCentsPerSecond * seconds, 2 * wobbleCents));
  if (Math.abs(cents) > least)
    return Math.abs(cents) > Math.hypot(least, 2 * roomWobble(reading, inNode(note)))
      ? { kind: 'moved', cents }
      : null;
  if (Math.abs(dB) > Math.max(LEAST_FADE, fadeDbPerSecond * seconds))
    return mayFadeInRoom(note, reading, inNode(note)) ? null : { kind: 'level', dB };
  if (note.wobbleCents !== null) return { kind: 'steady' };
  // Echoes take a part of a note that is long enough by itself.
  return roomWobble(reading, 1) > 0 ? null : { kind: 'short' };
}
