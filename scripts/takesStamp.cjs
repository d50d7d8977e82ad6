/** What simulated takes depend on: a change in any of it makes anew, in the program that is made of it, what depends on it. */
const { createHash } = require('node:crypto');
const { existsSync, readdirSync, readFileSync, rmSync, statSync } = require('node:fs');
const { join } = require('node:path');

/** What is played, and measured frame by frame. */
const SOUNDED = ['base', 'tuning', 'instruments', 'music', 'hearing/signal', 'take', 'lab'];
/** What is heard in it. */
const HEARD = [...SOUNDED, 'hearing'];
/** What was made of other sources is kept for so long. */
const KEPT_MS = 24 * 60 * 60 * 1000;

function* filesIn(path) {
  if (!statSync(path).isDirectory()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!/\.test\.tsx?$/.test(name)) yield* filesIn(join(path, name));
}

/** A name for the sources in rooms of the core, as they are now. */
function nameOf(root, rooms) {
  const hash = createHash('sha1');
  for (const room of rooms)
    for (const file of filesIn(join(root, 'src', 'core', room))) hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 12);
}

/** Names for what decides what sounds, and what is heard in it; what was made of others long ago is cleared away. */
exports.takesStamps = function takesStamps(root) {
  const stamps = { sounded: nameOf(root, SOUNDED), takes: nameOf(root, HEARD) };
  const folder = join(root, 'build', 'takes');
  for (const name of existsSync(folder) ? readdirSync(folder) : []) {
    const path = join(folder, name);
    if (!Object.values(stamps).includes(name) && Date.now() - statSync(path).mtimeMs > KEPT_MS)
      rmSync(path, { recursive: true, force: true });
  }
  return stamps;
};
