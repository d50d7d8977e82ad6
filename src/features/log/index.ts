export { BinScreen } from './BinScreen';
export { LogScreen } from './LogScreen';
