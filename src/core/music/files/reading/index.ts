export { readMusicFile } from './reading';
