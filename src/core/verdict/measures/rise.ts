import type { Reason } from '../figure';
import { because } from '../words';

/** Why it is not told how fast something began. */
export const unknownRise = (reason: Reason): string =>
  reason === 'room'
    ? 'How fast it rose is not known: the echoes of this room blur it.'
    : because(reason, 'How fast it rose');
