import useSWR from 'swr';
import {
  addPiece,
  readMusic,
  removePiece,
  restorePiece,
  type Music,
  type NewPiece,
  type Piece,
} from './musicStore';
import { changed, data, home, LOCAL } from './opened';
import { exclusively } from './exclusively';
import type { Storage } from './storage';

/** The player's own music, newest first, and what of it cannot be read. */
export function useMusic() {
  const { data: music, error } = useSWR<Music, Error>(
    data('music'),
    async () => readMusic((await home()).storage),
    LOCAL,
  );
  return { data: music?.pieces, unread: music?.unread ?? [], error };
}

/** Two imports at once, in one tab or in two, must not lose a piece. */
async function alone<T>(work: (storage: Storage) => Promise<T>): Promise<T> {
  const { storage, name } = await home();
  const done = await exclusively(name, () => work(storage));
  await changed('music');
  return done;
}

export const addMusic = (piece: NewPiece): Promise<Piece> =>
  alone((storage) => addPiece(storage, piece, new Date()));

/** @returns the piece, for putting it back. */
export const removeMusic = (id: string): Promise<Piece | null> =>
  alone((storage) => removePiece(storage, id));

export const restoreMusic = (piece: Piece): Promise<void> => alone((storage) => restorePiece(storage, piece));
