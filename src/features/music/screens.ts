/** The pages of this room in one piece, which is loaded when the first of them is shown. */
export { MusicScreen } from './MusicScreen';
export { PieceScreen } from './PieceScreen';
export { PhraseScreen } from './PhraseScreen';
