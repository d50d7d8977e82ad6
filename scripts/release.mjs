/** node scripts/release.mjs FOLDER NAME: for tests, another release of the built app: all that it is made of has other names. */
import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './ensure.mjs';
import { writeServiceWorker } from './offline.mjs';
import { renameScripts } from './rename.mjs';

const [folder, name] = process.argv.slice(2);
// Without what is packed for the wire: it would be what was packed before.
cpSync(join(root, 'dist'), folder, { recursive: true, filter: (path) => !/\.(br|gz)$/.test(path) });
if (name !== undefined) {
  renameScripts(folder, name);
  await writeServiceWorker(folder);
}
