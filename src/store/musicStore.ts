import * as z from 'zod';
import { checked, readRecord, type RecordKind } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { storedScoreSchema } from '@/core/music';
import { newId } from './newId';
import { ownInstruments } from './settings';
import type { Storage } from './storage';

export const MUSIC_KEY = 'music';

export const pieceSchema = (own: readonly Instrument[]) =>
  z.object({
    id: z.string(),
    /** ISO 8601. */
    addedAt: z.string(),
    fileName: z.string(),
    score: storedScoreSchema(own),
    /** What of the file is not in the score, in words. */
    remark: z.string().nullable().default(null),
  });
/** A piece of the player's own, as it was imported. */
export type Piece = z.infer<ReturnType<typeof pieceSchema>>;

/** A piece that cannot be read takes no other with it: it lies where it lay, and is told of. */
export interface UnreadPiece {
  readonly title: string;
  readonly problem: string;
  readonly stored: unknown;
}

export interface Music {
  readonly pieces: readonly Piece[];
  readonly unread: readonly UnreadPiece[];
}

const musicSchema = z.object({ version: z.literal(1), pieces: z.array(z.unknown()) });
export const musicKind: RecordKind<z.infer<typeof musicSchema>> = {
  name: 'music',
  version: 1,
  schema: musicSchema,
  migrations: {},
};

const titledSchema = z.object({ score: z.object({ title: z.string() }) });
const NO_MUSIC: Music = { pieces: [], unread: [] };

/** @param own instruments that the player has or had: the oldest music was made for them by name. */
function musicOf(stored: readonly unknown[], own: readonly Instrument[]): Music {
  const pieces: Piece[] = [];
  const unread: UnreadPiece[] = [];
  for (const each of stored) {
    const read = checked(pieceSchema(own), each, 'the piece');
    if (read.ok) pieces.push(read.value);
    else
      unread.push({
        title: titledSchema.safeParse(each).data?.score.title ?? 'A piece without a title',
        problem: read.problem,
        stored: each,
      });
  }
  return { pieces, unread };
}

/** The player's own music, newest first. @throws where the record as a whole cannot be read; it is left as it lies. */
export async function readMusic(storage: Storage): Promise<Music> {
  const text = await storage.getItem(MUSIC_KEY);
  if (text === null) return NO_MUSIC;
  const read = readRecord(musicKind, text);
  if (!read.ok) throw new Error(read.problem);
  return musicOf(read.value.pieces, await ownInstruments(storage));
}

/** What cannot be read stays behind what can. */
async function change(storage: Storage, by: (pieces: readonly Piece[]) => readonly Piece[]): Promise<void> {
  const { pieces, unread } = await readMusic(storage);
  const next = [...by(pieces), ...unread.map(({ stored }) => stored)];
  await storage.setItem(MUSIC_KEY, JSON.stringify({ version: 1, pieces: next }));
}

export type NewPiece = Pick<Piece, 'fileName' | 'score' | 'remark'>;

export async function addPiece(
  storage: Storage,
  { fileName, score, remark }: NewPiece,
  now: Date,
): Promise<Piece> {
  const piece = { id: newId(now), addedAt: now.toISOString(), fileName, score, remark };
  await change(storage, (pieces) => [piece, ...pieces]);
  return piece;
}

export async function removePiece(storage: Storage, id: string): Promise<Piece | null> {
  let removed: Piece | null = null;
  await change(storage, (pieces) => {
    removed = pieces.find((piece) => piece.id === id) ?? null;
    return pieces.filter((piece) => piece.id !== id);
  });
  return removed;
}

/** Puts a removed piece back. */
export const restorePiece = (storage: Storage, piece: Piece): Promise<void> =>
  change(storage, (pieces) => [piece, ...pieces.filter((each) => each.id !== piece.id)]);

/** Music in a stored text of somewhere else; null: it cannot be read at all. */
export function musicIn(text: string, own: readonly Instrument[]): Music | null {
  const read = readRecord(musicKind, text);
  return read.ok ? musicOf(read.value.pieces, own) : null;
}

/** Adds pieces that are not here. @returns the ids of those. */
export async function addMissingPieces(storage: Storage, pieces: readonly Piece[]): Promise<string[]> {
  let added: string[] = [];
  await change(storage, (here) => {
    const known = new Set(here.map(({ id }) => id));
    const missing = pieces.filter(({ id }) => !known.has(id));
    added = missing.map(({ id }) => id);
    return [...missing, ...here];
  });
  return added;
}

export async function removePieces(storage: Storage, ids: readonly string[]): Promise<void> {
  const gone = new Set(ids);
  await change(storage, (pieces) => pieces.filter(({ id }) => !gone.has(id)));
}
