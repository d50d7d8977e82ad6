/** Finishes dist/: packs every file for the wire, and writes the service worker that keeps the app where there is no network. */
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { generateSW } from 'workbox-build';

/** Pictures of the router's own development pages: no screen of ours shows them. */
const NEVER_SHOWN = ['assets/node_modules/expo-router/**', 'metadata.json'];
const LARGEST_BYTES = 5_000_000;
const PACKED = /\.(html|js|css|json|webmanifest|svg|ttf)$/;

export async function writeServiceWorker(dist) {
  const { count, size, warnings } = await generateSW({
    globDirectory: dist,
    globPatterns: ['**/*.{html,js,webmanifest,png,ttf,json}'],
    globIgnores: NEVER_SHOWN,
    maximumFileSizeToCacheInBytes: LARGEST_BYTES,
    swDest: join(dist, 'sw.js'),
    // Names with a hash are never another file.
    dontCacheBustURLsMatching: /[-.][0-9a-f]{32}\./,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    clientsClaim: true,
    // A newer one waits until it is asked for: never in the middle of a take.
    skipWaiting: false,
    cleanupOutdatedCaches: true,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  });
  for (const warning of warnings) console.warn(warning);
  console.log(`service worker: ${count} files, ${(size / 1e6).toFixed(1)} MB`);
}

function* filesIn(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* filesIn(path);
    else yield path;
  }
}

/** Beside each file its brotli and gzip forms, for the server to send as they are. */
export function packForTheWire(folder) {
  let before = 0;
  let after = 0;
  for (const path of filesIn(folder)) {
    if (!PACKED.test(path)) continue;
    const content = readFileSync(path);
    const brotli = brotliCompressSync(content, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: content.length > 2_000_000 ? 6 : 10,
        [constants.BROTLI_PARAM_SIZE_HINT]: content.length,
      },
    });
    writeFileSync(`${path}.br`, brotli);
    writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
    before += content.length;
    after += brotli.length;
  }
  console.log(`packed: ${(before / 1e6).toFixed(1)} MB to ${(after / 1e6).toFixed(1)} MB`);
}
