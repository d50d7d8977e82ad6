export { StandScreen } from './StandScreen';
