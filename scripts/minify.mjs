/** Makes the built scripts small. What was made small before is remembered by its words: a warm build does little. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { transform } from 'esbuild';
import { minify as terser } from 'terser';
import { root } from './ensure.mjs';

const CACHE = join(root, 'build', 'cache', 'small');

/** Terser takes ten times as long as esbuild and leaves a twentieth less: worth it for what stands before the first page. */
const ofFirstPage = (name) => /^(entry|__)/.test(name);

async function small(name, code) {
  if (ofFirstPage(name)) return (await terser(code, { format: { comments: false } })).code;
  const made = await transform(code, {
    minify: true,
    target: 'es2020',
    legalComments: 'none',
    charset: 'utf8',
  });
  return made.code;
}

/** In a thread of its own, so that the largest does not hold up what else there is to do. */
const inThread = (name, code) =>
  new Promise((done, failed) => {
    const worker = new Worker(fileURLToPath(import.meta.url), { workerData: { name, code } });
    worker.once('message', done);
    worker.once('error', failed);
  });

/** @returns the script made small. @param name of its file. */
export async function minified(name, code) {
  const kept = join(
    CACHE,
    createHash('sha256')
      .update(ofFirstPage(name) ? 'terser' : 'esbuild')
      .update(code)
      .digest('hex'),
  );
  if (existsSync(kept)) return readFileSync(kept, 'utf8');
  const made = ofFirstPage(name) ? await inThread(name, code) : await small(name, code);
  mkdirSync(CACHE, { recursive: true });
  writeFileSync(kept, made);
  return made;
}

if (!isMainThread && workerData?.code !== undefined)
  parentPort.postMessage(await small(workerData.name, workerData.code));
