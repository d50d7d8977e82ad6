/** The pages of this room in one piece, which is loaded when the first of them is shown. */
export { InstrumentScreen } from './InstrumentScreen';
export { InstrumentsScreen } from './InstrumentsScreen';
