/** npm run trials [-- --count=N --seed=N]: the browser is killed at random moments of takes and of Keep; broken files by the thousand. */
import { bundled } from './bundle.mjs';
import { ensureBuild, ensureChromium, ensureModules, run } from './ensure.mjs';

await Promise.all([ensureModules(), ensureChromium()]);
ensureBuild();
run('npx', ['jest', '--selectProjects', 'core', '--testPathPattern', 'files/malformed'], {
  env: { ...process.env, TRIALS: '10000' },
});
run('node', [await bundled('bench/trials.ts'), ...process.argv.slice(2)]);
