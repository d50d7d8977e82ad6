import { fromByteArray, toByteArray } from 'base64-js';
import type { Storage, Writes } from './storage';

/** Bytes of sound in one stored text: small enough that no single write is slow. */
const CHUNK_BYTES = 384 * 1024;
/** Pieces that are asked for at once; what is there is in an unbroken row. */
const AT_ONCE = 16;

export const AUDIO = 'audio/';
const chunkKey = (id: string, index: number) => `${AUDIO}${id}/${String(index).padStart(5, '0')}`;
/** Whose sound a key holds. */
export const audioOwner = (key: string): string => key.slice(AUDIO.length, key.lastIndexOf('/'));

/** Sound of takes as 16-bit samples in base64 texts, since the storage holds texts only. */
export async function writeAudio(storage: Storage, id: string, samples: Int16Array): Promise<void> {
  const bytes = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  for (let at = 0, index = 0; at < bytes.length; at += CHUNK_BYTES, index++) {
    await storage.setItem(chunkKey(id, index), fromByteArray(bytes.subarray(at, at + CHUNK_BYTES)));
  }
}

/** One more piece of sound that is still growing, to be written. */
export function pieceWrites(id: string, piece: number, samples: Int16Array): Writes {
  const bytes = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  return { [chunkKey(id, piece)]: fromByteArray(bytes) };
}

export async function readAudio(storage: Storage, id: string): Promise<Int16Array | null> {
  const parts: Uint8Array[] = [];
  for (let whole = true; whole;) {
    const keys = Array.from({ length: AT_ONCE }, (_, i) => chunkKey(id, parts.length + i));
    const stored = await storage.getMany(keys);
    const texts = keys.map((key) => stored[key] ?? null);
    const end = texts.indexOf(null);
    whole = end < 0;
    for (const text of whole ? texts : texts.slice(0, end)) parts.push(toByteArray(text!));
  }
  if (parts.length === 0) return null;
  const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return new Int16Array(bytes.buffer, 0, bytes.length >> 1);
}

/** Whether there is any, whole or not. */
export const hasAudio = async (storage: Storage, id: string): Promise<boolean> =>
  (await storage.getItem(chunkKey(id, 0))) !== null;

export async function removeAudio(storage: Storage, ...ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  const gone = new Set(ids);
  const keys = await storage.getAllKeys();
  await storage.removeMany(keys.filter((key) => key.startsWith(AUDIO) && gone.has(audioOwner(key))));
}
