export { hearWritten } from './hearWritten';
export { align, NEIGHBOUR, type Alignment, type Beats, type Match } from './align';
export { mistaken, type Mistaken } from './mistaken';
export { Aligner, type AlignerOptions, type Role, type Sounded } from './aligner';
export { groupsOf, type Group } from './groups';
export { LiveNotes, type LiveSound } from './liveNotes';
export { SAME } from './aligner';
