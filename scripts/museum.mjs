/** npm run museum -- NAME: at a release, puts what this version leaves behind into fixtures/NAME, for every later one to read. */
import { bundled } from './bundle.mjs';
import { ensureModules, run } from './ensure.mjs';

await ensureModules();
run('node', [await bundled('bench/museum.ts'), ...process.argv.slice(2)]);
