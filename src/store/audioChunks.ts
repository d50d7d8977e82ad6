import { fromByteArray, toByteArray } from 'base64-js';
import type { Storage } from './storage';

/** Bytes of sound in one stored text: small enough that no single write is slow. */
const CHUNK_BYTES = 384 * 1024;

const prefix = (id: string) => `audio/${id}/`;
const chunkKey = (id: string, index: number) => `${prefix(id)}${String(index).padStart(5, '0')}`;

/** Sound of takes as 16-bit samples in base64 texts, since the storage holds texts only. */
export async function writeAudio(storage: Storage, id: string, samples: Int16Array): Promise<void> {
  const bytes = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  for (let at = 0, index = 0; at < bytes.length; at += CHUNK_BYTES, index++) {
    await storage.setItem(chunkKey(id, index), fromByteArray(bytes.subarray(at, at + CHUNK_BYTES)));
  }
}

/** Adds one more piece to sound that is still growing. */
export async function appendAudio(
  storage: Storage,
  id: string,
  piece: number,
  samples: Int16Array,
): Promise<void> {
  const bytes = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  await storage.setItem(chunkKey(id, piece), fromByteArray(bytes));
}

export async function readAudio(storage: Storage, id: string): Promise<Int16Array | null> {
  const keys = await audioKeys(storage, id);
  if (keys.length === 0) return null;
  const stored = await storage.getMany(keys);
  const parts = keys.map((key) => toByteArray(stored[key] ?? ''));
  const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return new Int16Array(bytes.buffer, 0, bytes.length >> 1);
}

export async function removeAudio(storage: Storage, id: string): Promise<void> {
  await storage.removeMany(await audioKeys(storage, id));
}

async function audioKeys(storage: Storage, id: string): Promise<string[]> {
  return (await storage.getAllKeys()).filter((key) => key.startsWith(prefix(id))).sort();
}
