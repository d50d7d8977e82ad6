/** @jest-environment node */
import { HOUR_MS } from '@/core/base';
import { growingFile, removeOldFiles } from './growingFile';

const NOW = new Date('2026-03-01T10:00:00Z');

/** The site's own files, in memory. */
function ownFiles(quota: number) {
  const files = new Map<string, number>();
  const directory = {
    getFileHandle: (name: string) => {
      files.set(name, 0);
      const createWritable = () =>
        Promise.resolve(
          new WritableStream<Uint8Array>({
            write: (bytes) => void files.set(name, files.get(name)! + bytes.length),
          }),
        );
      return Promise.resolve({ createWritable, getFile: () => Promise.resolve({ size: files.get(name) }) });
    },
    removeEntry: (name: string) => Promise.resolve(void files.delete(name)),
    // eslint-disable-next-line @typescript-eslint/require-await -- as the browser's is
    keys: async function* () {
      yield* [...files.keys()];
    },
  };
  const storage = {
    getDirectory: () => Promise.resolve(directory),
    estimate: () => Promise.resolve({ quota, usage: 0 }),
  };
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { storage } });
  return files;
}

async function written(bytes: number): Promise<Blob> {
  const { writable, done } = await growingFile(bytes, NOW);
  const writer = writable.getWriter();
  await writer.write(new Uint8Array(bytes));
  await writer.close();
  return done();
}

it('lies on the disk where there is room, and is cleared away when it is an hour old', async () => {
  const files = ownFiles(1000);
  files.set('of somebody else', 1);
  expect((await written(500)).size).toBe(500);
  expect([...files.values()]).toEqual([1, 500]);
  await removeOldFiles(new Date(NOW.getTime() + HOUR_MS / 2));
  expect(files.size).toBe(2);
  await removeOldFiles(new Date(NOW.getTime() + 2 * HOUR_MS));
  expect([...files.keys()]).toEqual(['of somebody else']);
});

it('is not begun on a disk that it would fill', async () => {
  const files = ownFiles(1000);
  const { writable } = await growingFile(5000, NOW);
  expect(files.size).toBe(0);
  await writable.abort();
});
