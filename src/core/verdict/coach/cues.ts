import type { FaultKind } from '@/core/verdict';
import type { CUES } from '@/core/music';

type Cue = (typeof CUES)[number];

/** The one thing to attend to that meets a fault, where there is one. */
export const CUE_FOR: Readonly<Partial<Record<FaultKind, Cue>>> = {
  'break-down': 'air before the note',
  'late-speech': 'air before the note',
  drag: 'air before the note',
  unsteady: 'breath from the belly',
  sinking: 'breath from the belly',
  'fading-hold': 'breath from the belly',
  'flat-when-fading': 'breath from the belly',
  hole: 'breath from the belly',
  'narrow-leap': 'throat loose',
  thin: 'throat loose',
  bump: 'little movement',
  'wide-interval': 'little movement',
  'anchor-moved': 'little movement',
  squeak: 'shoulders loose',
  vibrato: 'shoulders loose',
};
