/** Names of scripts in a built app. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const scriptsIn = (dist) => join(dist, '_expo', 'static', 'js', 'web');
const HASH = /[0-9a-f]{32}/;

/**
 * Names the scripts of an app anew, by the names that the bundler gave them and by what else decides what is in them: a name with
 * a hash must never be another file.
 */
export function renameScripts(dist, makers) {
  const folder = scriptsIn(dist);
  const names = readdirSync(folder).filter((name) => name.endsWith('.js'));
  const hashed = names.filter((name) => HASH.test(name));
  const renamed = new Map(
    hashed.map((name) => {
      const [hash] = HASH.exec(name);
      return [hash, createHash('md5').update(hash).update(makers).digest('hex')];
    }),
  );
  const told = (text) => text.replace(new RegExp(HASH, 'g'), (hash) => renamed.get(hash) ?? hash);
  for (const path of [...names.map((name) => join(folder, name)), join(dist, 'index.html')])
    writeFileSync(path, told(readFileSync(path, 'utf8')));
  for (const name of hashed) renameSync(join(folder, name), join(folder, told(name)));
}
