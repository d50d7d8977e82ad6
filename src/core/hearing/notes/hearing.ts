import type { Hertz, Seconds } from '@/core/base';
import type { Offsets } from '@/core/tuning';
import type { PurityLimits } from './note';

/** A time in which the written music begins a note that sounds already. */
export interface Due {
  readonly from: Seconds;
  readonly to: Seconds;
}

/** What has to be known of a recording before it is heard. */
export interface HearingOptions {
  /** Pitch standard. */
  readonly a4?: Hertz;
  /** Where notes ought to lie against equal temperament; centres are told from there. */
  readonly offsets?: Offsets;
  readonly purity?: PurityLimits;
  /** The recording's gain was changed behind our back: levels say nothing about the player. */
  readonly gainControlled?: boolean;
  /** Someone else sounds along (a voice, a partner): what is heard of pitch and colour is not the player's alone. */
  readonly company?: boolean;
  /** Where a note is to be begun again: it is likelier there. */
  readonly due?: readonly Due[];
}
