import type { Piece } from '@/store';

/** A piece that was just removed waits here until something else is. */
let removed: Piece | null = null;

export const rememberRemoved = (piece: Piece | null) => {
  removed = piece;
};
export const removedPiece = () => removed;
