/** Finishes dist/: packs every file for the wire, and writes the service worker that keeps the app where there is no network. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { generateSW } from 'workbox-build';
import { remembered } from './remember.mjs';

/** Pictures of the router's own development pages: no screen of ours shows them. */
const NEVER_SHOWN = ['assets/node_modules/expo-router/**', 'metadata.json'];
const LARGEST_BYTES = 5_000_000;
const PACKED = /\.(html|js|css|json|webmanifest|svg|ttf|txt)$/;

const digest = (algorithm, content, as) => createHash(algorithm).update(content).digest(as);

/**
 * The worker lays by all of one build or nothing: what is not, to the byte, what was built is not taken, since a newer build may
 * have been put in its place meanwhile. Each build has a store of its own, so that pages of the one before keep theirs.
 */
export async function writeServiceWorker(dist) {
  const content = (url) => readFileSync(join(dist, url));
  const cacheId = `gold-reed-${digest('md5', content('index.html'), 'hex')}`;
  const swDest = join(dist, 'sw.js');
  const { warnings } = await generateSW({
    globDirectory: dist,
    globPatterns: ['**/*.{html,js,webmanifest,png,ttf,woff2,json,txt}'],
    globIgnores: NEVER_SHOWN,
    maximumFileSizeToCacheInBytes: LARGEST_BYTES,
    swDest,
    cacheId,
    // Names with a hash are never another file.
    dontCacheBustURLsMatching: /[-.][0-9a-f]{32}\./,
    manifestTransforms: [
      (entries) => ({
        manifest: entries.map((entry) => ({
          ...entry,
          integrity: `sha256-${digest('sha256', content(entry.url), 'base64')}`,
        })),
      }),
    ],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /\.[^/]*$/],
    clientsClaim: true,
    // A newer one waits until it is asked for: never in the middle of a take.
    skipWaiting: false,
    // Pages of an earlier build may still be open: see earlier.js.
    cleanupOutdatedCaches: false,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  });
  for (const warning of warnings) console.warn(warning);
  const earlier = readFileSync(join(import.meta.dirname, 'earlier.js'), 'utf8');
  writeFileSync(
    swDest,
    `const OWN = ${JSON.stringify(cacheId)};\n${earlier}\n${readFileSync(swDest, 'utf8')}`,
  );
}

function* filesIn(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* filesIn(path);
    else yield path;
  }
}

const brotli = promisify(brotliCompress);
const gzipped = promisify(gzip);
/** Bytes. What is larger than a library is data, and packed in haste. */
const LARGE = 2_000_000;

/** Beside each file its brotli and gzip forms, for the server to send as they are. */
export async function packForTheWire(folder) {
  await Promise.all(
    [...filesIn(folder)]
      .filter((path) => PACKED.test(path))
      .map(async (path) => {
        const content = readFileSync(path);
        const params = {
          [constants.BROTLI_PARAM_QUALITY]: content.length > LARGE ? 6 : 10,
          [constants.BROTLI_PARAM_SIZE_HINT]: content.length,
        };
        writeFileSync(`${path}.br`, await remembered('brotli', content, () => brotli(content, { params })));
        writeFileSync(`${path}.gz`, await remembered('gzip', content, () => gzipped(content, { level: 9 })));
      }),
  );
}
