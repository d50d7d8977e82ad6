/** What simulated takes depend on: a change in any of it makes every take anew, in the program that is made of it. */
const { createHash } = require('node:crypto');
const { readdirSync, readFileSync, statSync } = require('node:fs');
const { join } = require('node:path');

const ROOMS = ['base', 'tuning', 'instruments', 'music', 'hearing', 'take', 'lab'];

function* filesIn(path) {
  if (!statSync(path).isDirectory()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!/\.test\.tsx?$/.test(name)) yield* filesIn(join(path, name));
}

/** @returns a name for the sources in a folder of ours, as they are now. */
exports.takesStamp = function takesStamp(root) {
  const hash = createHash('sha1');
  for (const room of ROOMS)
    for (const file of filesIn(join(root, 'src', 'core', room))) hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 12);
};
