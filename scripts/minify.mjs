/** Makes the built scripts small. */
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { transform } from 'esbuild';
import { minify as terser } from 'terser';
import { remembered } from './remember.mjs';

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
export const minified = (name, code) =>
  ofFirstPage(name)
    ? remembered('terser', code, () => inThread(name, code))
    : remembered('esbuild', code, () => small(name, code));

if (!isMainThread && workerData?.code !== undefined)
  parentPort.postMessage(await small(workerData.name, workerData.code));
