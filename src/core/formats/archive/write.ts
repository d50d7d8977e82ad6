import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import { TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { ARCHIVE_SCHEMA, MANIFEST, type ArchiveFile, type Manifest } from './manifest';

/** One file that goes into an archive. */
export interface ArchivePart {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Sound hardly gets smaller, and is packed in haste; text well. */
const levelFor = (path: string) => (path.endsWith('.wav') ? 1 : 6);

/**
 * Writes an archive, part by part: no more than one part is held at a time.
 * @throws what `signal` was aborted with; the archive is then not whole.
 */
export async function writeArchive(
  parts: AsyncIterable<ArchivePart>,
  about: Omit<Manifest, 'schema' | 'files'>,
  to: WritableStream<Uint8Array>,
  signal?: AbortSignal,
): Promise<void> {
  const zip = new ZipWriter(to, { useWebWorkers: false, keepOrder: true });
  const files: ArchiveFile[] = [];
  for await (const { path, bytes } of parts) {
    signal?.throwIfAborted();
    await zip.add(path, new Uint8ArrayReader(bytes), { level: levelFor(path) });
    files.push({ path, bytes: bytes.length, sha256: bytesToHex(sha256(bytes)) });
  }
  const manifest: Manifest = { schema: ARCHIVE_SCHEMA, ...about, files };
  await zip.add(MANIFEST, new TextReader(JSON.stringify(manifest)));
  await zip.close();
}
