export { blurOf, floorOf, RINGS, roomOf, swingLeft, roomSchema, type Room, type RoomSound } from './room';
