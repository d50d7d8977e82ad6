/** npm run trials [-- --count=N --seed=N]: the browser is killed at random moments of takes and of Keep; broken files by the thousand. */
import { join } from 'node:path';
import { ensureBuild, ensureChromium, ensureModules, root, run } from './ensure.mjs';

await Promise.all([ensureModules(), ensureChromium()]);
ensureBuild();
const { build } = await import('esbuild');
await build({
  absWorkingDir: root,
  entryPoints: ['bench/trials.ts'],
  outfile: 'build/trials.cjs',
  bundle: true,
  alias: { '@': join(root, 'src') },
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  external: ['playwright-core'],
  logLevel: 'warning',
});
run('npx', ['jest', '--selectProjects', 'core', '--testPathPattern', 'files/malformed'], {
  env: { ...process.env, TRIALS: '10000' },
});
run('node', ['build/trials.cjs', ...process.argv.slice(2)]);
