import type { NoteEvent } from '@/core/hearing/notes';

/** A shape for each kind of event, 14 units wide about the origin: told apart without colour, and never without its word. */
export const MARKS: Readonly<Record<NoteEvent['kind'], string>> = {
  break: 'M0 -8 L8 0 L0 8 L-8 0 Z',
  blip: 'M0 -7 L7 6 L-7 6 Z',
  squeak: 'M-7 6 L-3 -7 L1 6 L5 -7 L8 3',
  undertone: 'M-8 2 q4 -6 8 0 t8 0 M-8 7 H8',
  gap: 'M-3 -7 V7 M4 -7 V7',
  'late-speech': 'M-7 0 H3 M3 -6 V6 M-7 -3 V3',
  'wrong-note': 'M-6 -6 L6 6 M6 -6 L-6 6',
  'vibrato-unwanted': 'M-9 0 q2.5 -8 5 0 t5 0 t5 0 t3 0',
};
