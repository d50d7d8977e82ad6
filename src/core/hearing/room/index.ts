export {
  blurOf,
  echoShareOf,
  floorOf,
  onsetErrorOf,
  reckonedWith,
  RINGS,
  roomOf,
  SIXTY_DB,
  swingLeft,
  roomSchema,
  type Room,
  type RoomSound,
} from './room';
