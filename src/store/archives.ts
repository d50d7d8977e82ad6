/** All that archives need, to be loaded when one is asked for. */
export { openArchive, writeArchive } from '@/core/formats/archive';
export { encodeWav, notesCsv, takesCsv } from '@/core/formats';
export { importArchive, previewOf, undoImport } from './archiveIn';
export { archiveParts, VERSIONS } from './archiveOut';
