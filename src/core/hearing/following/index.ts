export { Conductor, type ConductorOptions, type Place } from './conductor';
export { LiveWords, offWord, type LiveRemark, type LiveWord } from './liveWord';
export { askedWord, tellsFading, type AskedWord } from './asked';
export { NoteNow, type HeardNow } from './noteNow';
export { pagesOf, type Page } from './pages';
export { binned, ringOf, tuneOf, type SweptSound } from './swept';
export { Explored, exploredIn, type ExploredFrame, type ExploredPicture, type Exploring } from './explored';
