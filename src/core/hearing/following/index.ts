export { Conductor, type ConductorOptions, type Place } from './conductor';
export { LiveWords, type LiveWord } from './liveWord';
export { pagesOf, type Page } from './pages';
