/** The pages of this room in one piece, which is loaded when the first of them is shown. */
export { BinScreen } from './BinScreen';
export { LogScreen } from './LogScreen';
export { ReportScreen } from './ReportScreen';
