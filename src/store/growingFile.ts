const NAME = 'export-';
/** By then a file that was handed out has been saved wherever the player wanted it. */
const KEPT_MS = 3_600_000;

/** A file that is written as a stream. */
export interface GrowingFile {
  readonly writable: WritableStream<Uint8Array>;
  /** What was written, once the stream is closed. */
  readonly done: () => Promise<Blob>;
}

/**
 * A file that grows on the device's disk where the browser has a place for that and room for so many bytes; else in the memory
 * that the browser gives it.
 */
export async function growingFile(bytes: number, now: Date): Promise<GrowingFile> {
  return (await onDisk(bytes, now).catch(() => null)) ?? inMemory();
}

/** Files of the site's own, which nobody sees but this page. Null: there are none here. */
async function ownFiles(): Promise<FileSystemDirectoryHandle | null> {
  const { storage } = navigator as { storage?: Partial<StorageManager> };
  return (await storage?.getDirectory?.()) ?? null;
}

async function onDisk(bytes: number, now: Date): Promise<GrowingFile | null> {
  const files = await ownFiles();
  if (!files) return null;
  const { quota = 0, usage = 0 } = await navigator.storage.estimate();
  if (quota - usage < bytes) return null;
  const name = `${NAME}${now.getTime()}`;
  const file = await files.getFileHandle(name, { create: true });
  if (!('createWritable' in file)) return null;
  return {
    // Its own type takes more than bytes; what is written here are bytes.
    writable: await file.createWritable(),
    done: () => file.getFile(),
  };
}

function inMemory(): GrowingFile {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const file = new Response(readable).blob();
  // What went wrong is told by the stream.
  file.catch(() => undefined);
  return { writable, done: () => file };
}

/** Removes files that were handed out long ago: the device needs their room. */
export async function removeOldFiles(now: Date): Promise<void> {
  const files = await ownFiles().catch(() => null);
  if (!files) return;
  for await (const name of (files as unknown as { keys(): AsyncIterable<string> }).keys()) {
    const made = name.startsWith(NAME) ? Number(name.slice(NAME.length)) : Infinity;
    if (now.getTime() - made > KEPT_MS) await files.removeEntry(name).catch(() => undefined);
  }
}
