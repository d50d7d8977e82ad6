export { packedCellsSchema, unpacked, type NoteCell, type PackedCells, type TakeCells } from './cells';
export { isClean, type Crossing } from './crossing';
export { digestOf, type Digest } from './digest';
export { entrySchema, MEASURED_BY, monthOf, type Entry, type RowFigure } from './entry';
export { sparkTrace, type Spark } from './spark';
export { weakNotes } from './weakNotes';
