export { MUSIC, PLANS, SETTINGS, soundPath, takeIdsIn, takePath, tracePath, type Manifest } from './manifest';
export { openArchive, type Archive } from './read';
export { writeArchive, type ArchivePart } from './write';
