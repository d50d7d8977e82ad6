/** What listens, in one piece that is loaded when it is first needed. */
export { ListenNow } from './ListenNow';
export { RoomNow } from './RoomNow';
export { StandStage } from './StandStage';
