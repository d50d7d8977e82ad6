/** The pages of this room in one piece, which is loaded when the first of them is shown. */
export { ExerciseScreen } from './ExerciseScreen';
export { LibraryScreen } from './LibraryScreen';
export { SheetScreen } from './SheetScreen';
