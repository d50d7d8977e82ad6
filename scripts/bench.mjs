/** npm run bench [-- --full]: accuracy and speed of the listening, as tables. */
import { join } from 'node:path';
import { ensureModules, root, run } from './ensure.mjs';

ensureModules();
const { build } = await import('esbuild');
await build({
  absWorkingDir: root,
  entryPoints: ['bench/main.ts'],
  outfile: 'build/bench.cjs',
  bundle: true,
  alias: { '@': join(root, 'src') },
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  logLevel: 'warning',
});
run('node', ['build/bench.cjs', ...process.argv.slice(2)]);
