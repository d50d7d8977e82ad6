export {
  blurOf,
  floorOf,
  onsetErrorOf,
  RINGS,
  roomOf,
  swingLeft,
  roomSchema,
  type Room,
  type RoomSound,
} from './room';
