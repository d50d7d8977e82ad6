import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import { BlobReader, Uint8ArrayWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import * as z from 'zod';
import { failure, success, type Outcome } from '@/core/base';
import { ARCHIVE_SCHEMA, MANIFEST, manifestSchema, type Manifest } from './manifest';

/** Far beyond what years of practice leave: what is larger was made to harm, or is something else. */
const MOST_FILES = 200_000;
const MOST_BYTES: Readonly<Record<'json' | 'wav' | 'csv', number>> = {
  json: 64_000_000,
  wav: 400_000_000,
  csv: 400_000_000,
};
/** Nothing of ours packs to less than a thousandth. */
const MOST_PACKED = 1100;

/** An archive that can be read from; its files have been found to be what its manifest says, one by one, when they are read. */
export interface Archive {
  readonly manifest: Manifest;
  /** Content of a file. */
  readonly read: (path: string) => Promise<Outcome<Uint8Array>>;
  readonly close: () => Promise<void>;
}

const NO_ARCHIVE = 'this is no archive of Gold Reed';
const namedSchema = z.object({ schema: z.string() });

/** Opens an archive; only its table of contents and its manifest are read. */
export async function openArchive(file: Blob): Promise<Outcome<Archive>> {
  const zip = new ZipReader(new BlobReader(file), { useWebWorkers: false, checkSignature: true });
  const opened = await contentsOf(zip).catch(() =>
    failure(`${NO_ARCHIVE}, or it is damaged: it cannot be unpacked`),
  );
  if (!opened.ok) await zip.close().catch(() => undefined);
  return opened;
}

async function contentsOf(zip: ZipReader<unknown>): Promise<Outcome<Archive>> {
  const entries = new Map<string, FileEntry>();
  for await (const entry of zip.getEntriesGenerator()) {
    if (entry.directory) continue;
    if (entries.size >= MOST_FILES)
      return failure(`it holds more than ${MOST_FILES} files, far more than a log has`);
    const problem = whatIsWrongWith(entry);
    if (problem !== null) return failure(`${entry.filename}: ${problem}`);
    entries.set(entry.filename, entry);
  }
  const own = entries.get(MANIFEST);
  if (!own) return failure(`${NO_ARCHIVE}: it has no ${MANIFEST}`);
  const manifest = readManifest(await bytesOf(own));
  if (!manifest.ok) return manifest;
  const missing = manifest.value.files.find(({ path }) => !entries.has(path));
  if (missing) return failure(`it is not whole: ${missing.path} is missing`);
  const about = new Map(manifest.value.files.map((each) => [each.path, each]));
  return success({
    manifest: manifest.value,
    async read(path) {
      const [entry, told] = [entries.get(path), about.get(path)];
      if (!entry || !told) return failure(`${path} is not in the archive`);
      const bytes = await bytesOf(entry).catch(() => null);
      if (!bytes) return failure(`${path} is damaged: it cannot be unpacked`);
      return bytes.length === told.bytes && bytesToHex(sha256(bytes)) === told.sha256
        ? success(bytes)
        : failure(`${path} is damaged: it is not what was written`);
    },
    close: async () => void (await zip.close()),
  });
}

const bytesOf = (entry: FileEntry): Promise<Uint8Array> =>
  entry.getData(new Uint8ArrayWriter(), { useWebWorkers: false, checkSignature: true });

function whatIsWrongWith({
  filename,
  encrypted,
  compressedSize,
  uncompressedSize,
}: FileEntry): string | null {
  if (encrypted) return 'it is locked with a password';
  const kind = /\.(json|wav|csv)$/.exec(filename)?.[1] as keyof typeof MOST_BYTES | undefined;
  if (kind === undefined || filename.includes('..')) return `${NO_ARCHIVE}: it holds other things`;
  if (uncompressedSize > MOST_BYTES[kind]) return `it unpacks to more than ${MOST_BYTES[kind] / 1e6} MB`;
  return uncompressedSize > 1e6 && uncompressedSize > MOST_PACKED * compressedSize
    ? 'it unpacks to far more than a record has'
    : null;
}

function readManifest(bytes: Uint8Array): Outcome<Manifest> {
  let raw: unknown;
  try {
    raw = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return failure(`${MANIFEST} is damaged`);
  }
  const named = namedSchema.safeParse(raw);
  if (!named.success) return failure(`${NO_ARCHIVE}: ${MANIFEST} says nothing of it`);
  if (named.data.schema !== ARCHIVE_SCHEMA)
    return failure(
      named.data.schema.startsWith('gold-reed/archive@')
        ? 'it was written by a newer Gold Reed; update this one, then bring it in'
        : NO_ARCHIVE,
    );
  const read = manifestSchema.safeParse(raw);
  return read.success ? success(read.data) : failure(`${MANIFEST} is damaged`);
}
