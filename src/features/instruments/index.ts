export { InstrumentScreen } from './InstrumentScreen';
export { InstrumentsScreen } from './InstrumentsScreen';
