export { floorOf, roomOf, roomSchema, type Room, type RoomSound } from './room';
