/** Everything of the map in one piece, which is loaded when the first of it is shown. */
export { MapDrawing } from './MapBore';
export { MapScreen } from './MapScreen';
export { BreakScreen, NoteScreen, SeamScreen } from './pages';
export { SlideScreen } from './SlideScreen';
export { TrendsScreen } from './TrendsScreen';
