export { LogScreen } from './LogScreen';
