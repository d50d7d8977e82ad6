/**
 * npm test: installs and builds what is missing, then lint, types, unit tests and browser tests, where CI is set a journey in
 * other engines too; ends with the count.
 * Every part has a limit, far above what it takes: what hangs is named and fails, instead of never ending.
 */
import { execFile as run, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { promisify } from 'node:util';
import {
  BROWSER,
  CHROMIUM,
  CYCLES,
  ENGINES,
  ensureBuild,
  ensureModules,
  ensurePackages,
  root,
  say,
} from './ensure.mjs';

const execFile = promisify(run);
const counts = { passed: 0, failed: 0 };
/** How long each test took. */
const slowest = [];
const SLOWEST = 20;
/** Tests that passed only at the second try. */
const flaky = [];
const MINUTE_MS = 60_000;
const LIMIT_MS = {
  check: 8 * MINUTE_MS,
  unit: 25 * MINUTE_MS,
  browser: 40 * MINUTE_MS,
  engines: 5 * MINUTE_MS,
};

/** Runs a program of a package by Node itself, so that its end ends it. */
function node(limitMs, bin, args, options) {
  const begun = Date.now();
  const { status, error } = spawnSync(process.execPath, [join(root, 'node_modules', bin), ...args], {
    cwd: root,
    timeout: limitMs,
    killSignal: 'SIGKILL',
    ...options,
  });
  if (error) say(`${bin} was ended after ${Math.round((Date.now() - begun) / 1000)} s: ${error.message}`);
  return status;
}

/** Several checks at once, each on a core of its own; what each says is printed when it ends. */
async function checks(all) {
  say(Object.keys(all).join(', '));
  await Promise.all(
    Object.entries(all).map(async ([name, [bin, ...args]]) => {
      const options = { cwd: root, timeout: LIMIT_MS.check, killSignal: 'SIGKILL', maxBuffer: 2 ** 26 };
      try {
        await execFile(process.execPath, [join(root, 'node_modules', bin), ...args], options);
        counts.passed++;
      } catch ({ stdout = '', stderr = '', message }) {
        console.log(`${name}: ${stdout}${stderr}` || message);
        counts.failed++;
      }
    }),
  );
}

function tests(name, limitMs, projects, extra = []) {
  say(name);
  const report = join(root, 'build', `tests-${projects.join('-')}.json`);
  mkdirSync(join(root, 'build'), { recursive: true });
  rmSync(report, { force: true });
  const status = node(
    limitMs,
    'jest/bin/jest.js',
    ['--selectProjects', ...projects, '--json', `--outputFile=${report}`, ...extra],
    { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, CHROMIUM } },
  );
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(
      readFileSync(report, 'utf8'),
    );
    for (const { name: file, assertionResults } of testResults)
      for (const { fullName, duration } of assertionResults)
        slowest.push({ seconds: (duration ?? 0) / 1000, test: `${relative(root, file)}: ${fullName}` });
    for (const { assertionResults } of testResults)
      for (const { status: outcome, invocations, fullName } of assertionResults)
        if (outcome === 'passed' && invocations > 1) flaky.push(fullName);
    counts.passed += numPassedTests;
    counts.failed += numFailedTests + numRuntimeErrorTestSuites;
    if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) counts.failed++;
  } catch {
    counts.failed++;
  }
}

const started = Date.now();
/** Does a part, and says how long it took. */
async function timed(part, work) {
  const begun = Date.now();
  await work();
  say(`${part} took ${Math.round((Date.now() - begun) / 1000)} s`);
}

await timed('installing', () =>
  Promise.all([ensureModules(), ensurePackages(process.env.CI ? { ...BROWSER, ...ENGINES } : BROWSER)]),
);
// Neither keeps two cores busy for long.
await timed('checks and building', async () => {
  const checked = checks({
    lint: ['eslint/bin/eslint.js', '.', '--max-warnings', '0'],
    format: ['prettier/bin/prettier.cjs', '--check', '.'],
    types: ['typescript-native/bin/tsc', '--noEmit'],
    cycles: ['dependency-cruiser/bin/dependency-cruise.mjs', ...CYCLES],
    'breaches of every rule, planted': ['../scripts/planted.mjs'],
  });
  ensureBuild();
  await checked;
});
await timed('unit tests', () => tests('unit tests', LIMIT_MS.unit, ['core', 'app'], ['--maxWorkers=100%']));
// Each waits for music most of the time. What a failed test left open must not keep the others waiting.
await timed('browser tests', () =>
  tests('browser tests', LIMIT_MS.browser, ['e2e'], ['--maxWorkers=3', '--forceExit']),
);
if (process.env.CI)
  await timed('other engines', () => {
    const { status } = spawnSync(process.execPath, [join(root, 'scripts', 'engines.mjs')], {
      cwd: root,
      stdio: 'inherit',
      timeout: LIMIT_MS.engines,
      killSignal: 'SIGKILL',
    });
    counts[status === 0 ? 'passed' : 'failed']++;
  });
console.log(`the ${SLOWEST} slowest:`);
slowest.sort((a, b) => b.seconds - a.seconds);
for (const { seconds, test } of slowest.slice(0, SLOWEST))
  console.log(`${seconds.toFixed(1).padStart(6)} s  ${test}`);
for (const name of flaky) console.log(`flaky: ${name}`);
// Elsewhere a busy machine may be to blame; where nothing else runs, the test is.
if (process.env.CI) {
  counts.passed -= flaky.length;
  counts.failed += flaky.length;
}
say(`all took ${Math.round((Date.now() - started) / 1000)} s`);
console.log(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
