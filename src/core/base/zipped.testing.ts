import { Uint8ArrayReader, Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js';

/** For tests: a zip of these files, text in UTF-8. */
export async function zipOf(files: Readonly<Record<string, string | Uint8Array>>): Promise<Uint8Array> {
  const zip = new ZipWriter(new Uint8ArrayWriter(), { useWebWorkers: false });
  for (const [path, content] of Object.entries(files))
    await zip.add(
      path,
      new Uint8ArrayReader(typeof content === 'string' ? new TextEncoder().encode(content) : content),
    );
  return zip.close();
}
