/** Builds the app into dist/, the server into build/server/, and the demo data into build/demo/. */
import { join } from 'node:path';
import { build } from 'esbuild';
import { root, runAside, say } from './ensure.mjs';
import { packForTheWire, writeServiceWorker } from './offline.mjs';

say('building the server');
await build({
  absWorkingDir: root,
  entryPoints: [
    'server/main.ts',
    'server/analysisThread.ts',
    'server/demo/makeDemo.ts',
    'server/demo/playThread.ts',
  ],
  outdir: 'build/server',
  bundle: true,
  packages: 'external',
  alias: { '@': join(root, 'src') },
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
});

say('building the app and playing eight weeks of demo takes (a minute or two the first time)');
// Each keeps about one core busy.
await Promise.all([
  runAside('npx', ['expo', 'export', '-p', 'web', '--output-dir', 'dist'], {
    env: { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', CI: '1' },
  }),
  runAside('node', ['--enable-source-maps', 'build/server/demo/makeDemo.js', 'build/demo']),
]);

say('packing for the wire, and for where there is no network');
await writeServiceWorker(join(root, 'dist'));
packForTheWire(join(root, 'dist'));
packForTheWire(join(root, 'build', 'demo'));
