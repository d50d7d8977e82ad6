import { Uint8ArrayReader, Uint8ArrayWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import { failure, success, type Outcome } from '@/core/base';

/** Bytes: no part for a wind instrument unpacks to more, and no table of contents names more files. */
const MOST = { xmlBytes: 24_000_000, containerBytes: 64_000, files: 1000 } as const;
const CONTAINER = 'META-INF/container.xml';
const OWN_THREAD = { useWebWorkers: false } as const;

/**
 * The music in a packed MusicXML file (.mxl), as its container names it. Unpacks only what holds the music, and only as large as
 * music is: a small file can unpack to gigabytes. @throws where the zip is damaged.
 */
export async function musicIn(bytes: Uint8Array): Promise<Outcome<Uint8Array>> {
  const zip = new ZipReader(new Uint8ArrayReader(bytes), OWN_THREAD);
  const entries: FileEntry[] = [];
  for await (const entry of zip.getEntriesGenerator()) {
    if (entries.length >= MOST.files) return failure(`it holds more than ${MOST.files} files`);
    if (!entry.directory) entries.push(entry);
  }
  const container = entries.find(({ filename }) => filename === CONTAINER);
  const inside =
    container && container.uncompressedSize <= MOST.containerBytes
      ? /full-path="([^"]+)"/.exec(new TextDecoder().decode(await contentOf(container)))?.[1]
      : undefined;
  const music = entries.find(({ filename }) =>
    inside === undefined
      ? /\.(musicxml|xml)$/i.test(filename) && !filename.startsWith('META-INF')
      : filename === inside,
  );
  if (!music) return failure('it holds no music');
  return music.uncompressedSize > MOST.xmlBytes
    ? failure(`the music in it unpacks to more than ${MOST.xmlBytes / 1e6} MB`)
    : success(await contentOf(music));
}

/** No more than the table of contents says: what unpacks to more is damaged, or meant to harm. */
const contentOf = (entry: FileEntry): Promise<Uint8Array> =>
  entry.getData(new Uint8ArrayWriter(), { ...OWN_THREAD, checkSignature: true });
