import * as z from 'zod';
import { readRecord, type RecordKind } from '@/core/base';
import { scoreSchema } from '@/core/music';
import { newId } from './newId';
import type { Storage } from './storage';

export const MUSIC_KEY = 'music';

const pieceSchema = z.object({
  id: z.string(),
  /** ISO 8601. */
  addedAt: z.string(),
  fileName: z.string(),
  score: scoreSchema,
  /** What of the file is not in the score, in words. */
  remark: z.string().nullable().default(null),
});
/** A piece of the player's own, as it was imported. */
export type Piece = z.infer<typeof pieceSchema>;

const musicSchema = z.object({ version: z.literal(1), pieces: z.array(pieceSchema) });
const musicKind: RecordKind<z.infer<typeof musicSchema>> = {
  name: 'music',
  version: 1,
  schema: musicSchema,
  migrations: {},
};

/** The player's own music, newest first. What cannot be read is left as it lies, and reported. */
export async function readMusic(storage: Storage): Promise<Piece[]> {
  const text = await storage.getItem(MUSIC_KEY);
  if (text === null) return [];
  const read = readRecord(musicKind, text);
  if (!read.ok) throw new Error(read.problem);
  return read.value.pieces;
}

async function write(storage: Storage, pieces: Piece[]): Promise<void> {
  await storage.setItem(MUSIC_KEY, JSON.stringify({ version: 1, pieces }));
}

export type NewPiece = Pick<Piece, 'fileName' | 'score' | 'remark'>;

export async function addPiece(
  storage: Storage,
  { fileName, score, remark }: NewPiece,
  now: Date,
): Promise<Piece> {
  const piece = { id: newId(now), addedAt: now.toISOString(), fileName, score, remark };
  await write(storage, [piece, ...(await readMusic(storage))]);
  return piece;
}

export async function removePiece(storage: Storage, id: string): Promise<Piece | null> {
  const pieces = await readMusic(storage);
  await write(
    storage,
    pieces.filter((piece) => piece.id !== id),
  );
  return pieces.find((piece) => piece.id === id) ?? null;
}

/** Puts a removed piece back. */
export async function restorePiece(storage: Storage, piece: Piece): Promise<void> {
  await write(storage, [piece, ...(await readMusic(storage)).filter((each) => each.id !== piece.id)]);
}

/** Pieces in a stored text of somewhere else; none where it cannot be read. */
export function musicIn(text: string): Piece[] {
  const read = readRecord(musicKind, text);
  return read.ok ? read.value.pieces : [];
}

/** Adds pieces that are not here. @returns the ids of those. */
export async function addMissingPieces(storage: Storage, pieces: readonly Piece[]): Promise<string[]> {
  const here = await readMusic(storage);
  const known = new Set(here.map(({ id }) => id));
  const missing = pieces.filter(({ id }) => !known.has(id));
  if (missing.length > 0) await write(storage, [...missing, ...here]);
  return missing.map(({ id }) => id);
}

export async function removePieces(storage: Storage, ids: readonly string[]): Promise<void> {
  const gone = new Set(ids);
  await write(
    storage,
    (await readMusic(storage)).filter(({ id }) => !gone.has(id)),
  );
}
