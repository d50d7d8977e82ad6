/** npm run bench [-- part … --full --live]: accuracy and speed of listening and judging, as tables. */
import { bundled } from './bundle.mjs';
import { ensureBuild, ensureChromium, ensureModules, run } from './ensure.mjs';

await ensureModules();
if (process.argv.some((each) => ['--live', 'live', 'ledger', 'load'].includes(each))) {
  await ensureChromium();
  ensureBuild();
}
run('node', [await bundled('bench/main.ts', 'bench'), ...process.argv.slice(2)]);
