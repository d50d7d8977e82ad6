export { Conductor, type ConductorOptions, type Place } from './conductor';
export { LiveWords, offWord, type LiveRemark, type LiveWord } from './liveWord';
export { askedWord, tellsFading, type AskedWord } from './asked';
export { NoteNow, type HeardNow } from './noteNow';
export { pagesOf, type Page } from './pages';
