export { StandScreen } from './StandScreen';
export { ListenNow, StandStage } from './later';
