/**
 * npm run check: lint and format of what changed, types, and the tests beside it; what the last commit changed when nothing has
 * changed since. It is for between commits; `npm test` is all of it.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ensureModules, root, say } from './ensure.mjs';

await ensureModules();

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
  run('types', 'typescript/bin/tsc', ['--noEmit', '--incremental', '--tsBuildInfoFile', `${CACHE}/types`])
    .then(async (good) => (await format()) && good)
    .then(async (good) => (await lint()) && good);

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
