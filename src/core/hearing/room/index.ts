export {
  blurOf,
  echoShareOf,
  floorOf,
  onsetErrorOf,
  RINGS,
  roomOf,
  SIXTY_DB,
  swingLeft,
  roomSchema,
  type Room,
  type RoomSound,
} from './room';
