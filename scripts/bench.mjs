/** npm run bench [-- part … --full --live]: accuracy and speed of listening and judging, as tables. */
import { join } from 'node:path';
import { ensureBuild, ensureChromium, ensureModules, root, run } from './ensure.mjs';

await ensureModules();
if (process.argv.some((each) => ['--live', 'live', 'ledger'].includes(each))) {
  await ensureChromium();
  ensureBuild();
}
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
  external: ['playwright-core'],
  logLevel: 'warning',
});
run('node', ['build/bench.cjs', ...process.argv.slice(2)]);
