export { StandScreen } from './StandScreen';
export { StandStage } from './later';
