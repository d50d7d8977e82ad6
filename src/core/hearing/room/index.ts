export { blurOf, floorOf, RINGS, roomOf, roomSchema, type Room, type RoomSound } from './room';
