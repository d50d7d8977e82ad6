export { StandScreen } from './StandScreen';
export { ListenNow, RoomNow, StandStage } from './later';
