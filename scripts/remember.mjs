/** What was made of the same bytes before is not made again: a warm build does only what is new. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './ensure.mjs';

const CACHE = join(root, 'build', 'cache');

/**
 * What `make` makes of a content, or what it made of it before.
 * @param kind of making; another way to make it is another kind.
 */
export async function remembered(kind, content, make) {
  const folder = join(CACHE, kind);
  const kept = join(folder, createHash('sha256').update(content).digest('hex'));
  if (existsSync(kept)) return readFileSync(kept);
  const made = await make();
  mkdirSync(folder, { recursive: true });
  writeFileSync(kept, made);
  return made;
}
