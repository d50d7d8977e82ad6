/**
 * npm run trials [-- --kills=N --tabs=N --day=N --releases=N --seed=N]: broken files and requests by the thousand; records of every kind
 * damaged, and the logs of every release opened; the browser is killed at random moments; two tabs at once; a long day; releases
 * that land in the middle of everything.
 */
import { bundled } from './bundle.mjs';
import { ensureBuild, ensureChromium, ensureModules, run } from './ensure.mjs';

await Promise.all([ensureModules(), ensureChromium()]);
ensureBuild();
run('npx', ['jest', '--selectProjects', 'core', '--testPathPattern', 'malformed'], {
  env: { ...process.env, TRIALS: '10000' },
});
run('npx', ['jest', '--selectProjects', 'app', '--testPathPattern', 'store/(aside|museum)']);
run('node', [await bundled('bench/trials/main.ts', 'trials'), ...process.argv.slice(2)]);
