/** The one thing that a block can carry to attend to. */
export const CUES = [
  'lips forward together',
  'head still',
  'shoulders loose',
  'throat loose',
  'little movement',
  'breath from the belly',
  'tongue low',
  'tongue high',
  'air before the note',
] as const;
