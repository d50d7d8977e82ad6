export { MusicScreen } from './MusicScreen';
export { PieceScreen } from './PieceScreen';
