/** What listens, in one piece that is loaded when it is first needed. */
export { ListenNow } from './ListenNow';
export { StandStage } from './StandStage';
