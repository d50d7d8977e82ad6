import type { Reason } from '../figure';
import { because } from '../words';

/** Why it is not told how something began. @param what is not told. */
export const unknownRise = (reason: Reason, what = 'How fast the sound rose'): string =>
  reason === 'room' ? `${what} is not known: the echoes of this room blur it.` : because(reason, what);
