/**
 * npm run mutate [-- --lines=60 --seed=1 --room=ledger]: alters one line of the core or the store at a time, in a copy, and asks the
 * tests of its own room whether they notice. What lives is printed: look at it, and write the test that a reader would expect.
 */
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { ensureModules, root, say } from './ensure.mjs';

await ensureModules();
const flag = (name, usual) =>
  process.argv.find((each) => each.startsWith(`--${name}=`))?.split('=')[1] ?? usual;
const LINES = Number(flag('lines', '60'));
const ROOMS = ['core/hearing', 'core/verdict', 'core/plan', 'core/ledger', 'store'].filter((room) =>
  room.endsWith(flag('room', '')),
);
/** Of the lines altered, the share that tests of their own room have to notice. */
const ENOUGH = 0.8;
const LONGEST_MS = 10 * 60_000;

/** What is put in the place of what, where it first stands in a line. */
const CHANGES = [
  [' < ', ' >= '],
  [' > ', ' <= '],
  [' <= ', ' > '],
  [' >= ', ' < '],
  [' === ', ' !== '],
  [' !== ', ' === '],
  [' && ', ' || '],
  [' || ', ' && '],
  [' + ', ' - '],
  [' - ', ' + '],
  [' * ', ' / '],
  [' / ', ' * '],
  ['Math.max(', 'Math.min('],
  ['Math.min(', 'Math.max('],
  ['true', 'false'],
];

/** Numbers from a seed (Marsaglia 2003, xorshift). */
let state = Number(flag('seed', '1')) * 2654435761;
function next(below) {
  state ^= state << 13;
  state ^= state >>> 17;
  state ^= state << 5;
  return (state >>> 0) % below;
}

const isCode = (line) =>
  !/^\s*(\*|\/\*|\/\/|import|export \{|type |readonly )/.test(line) && !/['"`].* .*['"`]/.test(line);
const sources = ROOMS.flatMap((room) =>
  readdirSync(join(root, 'src', room), { recursive: true })
    .filter(
      (name) => name.endsWith('.ts') && !/\.(test|testing)\.ts$/.test(name) && basename(name) !== 'index.ts',
    )
    .map((name) => join('src', room, name)),
);
const places = sources.flatMap((file) =>
  readFileSync(join(root, file), 'utf8')
    .split('\n')
    .flatMap((line, i) =>
      (isCode(line) ? CHANGES.filter(([from]) => line.includes(from)) : []).map((change) => ({
        file,
        i,
        line,
        change,
      })),
    ),
);

const COPY = join(root, 'build', 'mutants');
rmSync(COPY, { recursive: true, force: true });
mkdirSync(COPY, { recursive: true });
for (const name of [
  'src',
  'server',
  'scripts',
  'e2e',
  'types',
  'fixtures',
  'jest.config.js',
  'jest.cases.js',
  'jest.web.js',
  'babel.config.js',
  'tsconfig.json',
  'package.json',
])
  cpSync(join(root, name), join(COPY, name), { recursive: true });
symlinkSync(join(root, 'node_modules'), join(COPY, 'node_modules'));

/** The room that a file lies in: the nearest folder around it with tests. */
function roomOf(file) {
  for (let folder = dirname(file); ; folder = dirname(folder))
    if (readdirSync(join(root, folder)).some((name) => name.endsWith('.test.ts'))) return folder;
}

/** Whether the tests under a path pass, as the copy is now. */
const pass = (tests) =>
  spawnSync(
    process.execPath,
    [
      join(COPY, 'node_modules/jest/bin/jest.js'),
      tests,
      '--bail',
      '--maxWorkers=100%',
      '--selectProjects',
      'core',
      'app',
    ],
    { cwd: COPY, stdio: 'ignore', timeout: LONGEST_MS },
  ).status === 0;
const sound = new Map();
/** The same of what is not altered: tests that fall anyhow notice nothing. */
function passUnaltered(tests) {
  if (!sound.has(tests)) sound.set(tests, pass(tests));
  if (!sound.get(tests)) throw new Error(`${tests} falls with nothing altered`);
}

/** Tests that may notice, those named as the file first, since they end soonest. */
const testsOf = (file) => {
  const own = file.replace(/\.ts$/, '.test.ts');
  return existsSync(join(root, own)) ? [own, roomOf(file)] : [roomOf(file)];
};

const chosen = new Map();
while (chosen.size < Math.min(LINES, places.length)) {
  const place = places[next(places.length)];
  chosen.set(`${place.file}:${place.i}`, place);
}
say(`${chosen.size} of ${places.length} places in ${ROOMS.join(', ')}`);
const living = [];
let asked = 0;
for (const { file, i, line, change } of chosen.values()) {
  const tests = testsOf(file);
  tests.forEach(passUnaltered);
  const text = readFileSync(join(root, file), 'utf8').split('\n');
  text[i] = line.replace(...change);
  writeFileSync(join(COPY, file), text.join('\n'));
  const noticed = !tests.every(pass);
  cpSync(join(root, file), join(COPY, file));
  asked++;
  if (!noticed) living.push(file);
  console.log(`${noticed ? 'noticed' : 'LIVES  '} ${file}:${i + 1} ${text[i].trim()}`);
}
const share = 1 - living.length / asked;
console.log(
  `${asked - living.length} of ${asked} noticed (${Math.round(100 * share)} %, ${100 * ENOUGH} asked)`,
);
process.exit(share >= ENOUGH ? 0 : 1);
