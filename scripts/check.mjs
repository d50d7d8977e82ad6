/**
 * npm run check: lint and format of what changed, types, cycles, and the tests beside it; what the last commit changed when
 * nothing has changed since. It is for between commits; `npm test` is all of it.
 *
 * `-- --seeds` runs every property at length under a fresh seed, which it prints; `-- --seeds=7,8` under these.
 * `-- --whole` runs all unit tests with every case of their matrices.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { CYCLES, ensureModules, root, say } from './ensure.mjs';

await ensureModules();

const JEST = join(root, 'node_modules', 'jest', 'bin', 'jest.js');
/** Unit tests with their output shown. @returns whether all passed. */
const unit = (files, env) =>
  spawnSync(process.execPath, [JEST, ...files, '--selectProjects', 'core', 'app'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  }).status === 0;

const asked = process.argv.slice(2).find((each) => each.startsWith('--seeds'));
if (asked) {
  const properties = readdirSync(join(root, 'src'), { recursive: true })
    .filter((name) => name.endsWith('.test.ts'))
    .map((name) => join('src', name))
    .filter((path) => readFileSync(join(root, path), 'utf8').includes("from 'fast-check'"));
  const seeds = asked.split('=')[1]?.split(',') ?? [String(Math.floor(Math.random() * 2 ** 31))];
  const fallen = seeds.filter((seed) => {
    say(`${properties.length} files of properties, seed ${seed}`);
    return !unit(properties, { CASES: seed, WHOLE: '1' });
  });
  say(
    fallen.length === 0
      ? 'all properties hold'
      : `they fall under ${fallen.join(', ')}: CASES=… npm run unit`,
  );
  process.exit(fallen.length === 0 ? 0 : 1);
}
if (process.argv.includes('--whole')) process.exit(unit([], { WHOLE: '1' }) ? 0 : 1);

const git = (...args) =>
  spawnSync('git', args, { cwd: root, encoding: 'utf8' })
    .stdout.split('\n')
    .filter((path) => path !== '' && existsSync(join(root, path)));
let changed = [...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')];
if (changed.length === 0) changed = git('diff', '--name-only', 'HEAD~1', 'HEAD');

const code = changed.filter((path) => /\.(m?js|tsx?)$/.test(path));
const beside = new Set(
  code.flatMap((path) =>
    readdirSync(join(root, dirname(path)))
      .filter((name) => /\.test\.tsx?$/.test(name))
      .map((name) => join(dirname(path), name)),
  ),
);

function run(name, bin, args) {
  const begun = Date.now();
  return new Promise((done) => {
    let output = '';
    const child = spawn(process.execPath, [join(root, 'node_modules', bin), ...args], { cwd: root });
    child.stdout.on('data', (chunk) => (output += chunk));
    child.stderr.on('data', (chunk) => (output += chunk));
    child.on('exit', (status) => {
      say(`${name}: ${status === 0 ? 'good' : 'failed'}, ${Math.round((Date.now() - begun) / 1000)} s`);
      if (status !== 0) console.log(output);
      done(status === 0);
    });
  });
}

const CACHE = 'build/cache';
const tests = () =>
  run(`${beside.size} test files`, 'jest/bin/jest.js', [
    ...beside,
    '--maxWorkers=1',
    '--selectProjects',
    'core',
    'app',
  ]);
const rest = () =>
  run('types', 'typescript-native/bin/tsc', [
    '--noEmit',
    '--incremental',
    '--tsBuildInfoFile',
    `${CACHE}/types`,
  ])
    .then(async (good) => (await format()) && good)
    .then(async (good) => (await lint()) && good)
    .then(async (good) => (await cycles()) && good);

const cycles = () => run('cycles', 'dependency-cruiser/bin/dependency-cruise.mjs', CYCLES);

const format = () =>
  changed.length === 0
    ? Promise.resolve(true)
    : run('format', 'prettier/bin/prettier.cjs', ['--check', '--ignore-unknown', ...changed]);
const lint = () =>
  code.length === 0
    ? Promise.resolve(true)
    : run('lint', 'eslint/bin/eslint.js', [
        ...code,
        '--max-warnings',
        '0',
        '--cache',
        '--cache-location',
        `${CACHE}/lint`,
      ]);

const results = await Promise.all([beside.size > 0 ? tests() : true, rest()]);
process.exit(results.every(Boolean) ? 0 : 1);
