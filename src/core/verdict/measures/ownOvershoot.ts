import type { Cents } from '@/core/base';
import { blurOf } from '@/core/hearing/room';
import type { Note } from '@/core/hearing/notes';
import type { Reading } from '../reading';
import { hiddenSwing } from './hiddenSwing';

/** Two notes that ring together pull at each other's pitch: up to so many times its limit an overshoot may be the room's. */
const PULLED = 1.5;

/**
 * What of an overshoot is surely the player's: within its swing a pitch goes beyond the note by itself, and where a room rings a
 * third of it may be the room's. It is held against the limit here and, later, in the ledger: one number for both.
 * @param into the note that was slurred to.
 */
export function ownOvershoot(
  reading: Pick<Reading, 'notes' | 'score' | 'room'>,
  into: Note,
  overshootCents: Cents,
): { readonly cents: Cents; readonly because: 'room' | 'vibrato' | null } {
  const swing = into.vibrato?.extentCents ?? hiddenSwing(reading, into);
  const notSwung = overshootCents - swing;
  const notPulled = blurOf(reading.room.decaySeconds) > 0 ? overshootCents / PULLED : overshootCents;
  const cents = Math.max(0, Math.min(notSwung, notPulled));
  return { cents, because: cents === overshootCents ? null : notPulled <= notSwung ? 'room' : 'vibrato' };
}
