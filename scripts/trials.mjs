/** npm run trials [-- --kills=N --tabs=N --day=N --seed=N]: broken files and requests by the thousand; the browser is killed at random moments; two tabs at once; a long day. */
import { bundled } from './bundle.mjs';
import { ensureBuild, ensureChromium, ensureModules, run } from './ensure.mjs';

await Promise.all([ensureModules(), ensureChromium()]);
ensureBuild();
run('npx', ['jest', '--selectProjects', 'core', '--testPathPattern', 'malformed'], {
  env: { ...process.env, TRIALS: '10000' },
});
run('node', [await bundled('bench/trials/main.ts', 'trials'), ...process.argv.slice(2)]);
