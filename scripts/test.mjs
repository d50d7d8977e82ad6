/** npm test: installs and builds what is missing, then lint, types, unit tests and browser tests; ends with the count. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { CHROMIUM, ensureBuild, ensureChromium, ensureModules, root, say } from './ensure.mjs';

const counts = { passed: 0, failed: 0 };

function check(name, command, args) {
  say(name);
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit' });
  counts[status === 0 ? 'passed' : 'failed']++;
}

function tests(name, projects, extra = []) {
  say(name);
  const report = join(root, 'build', `tests-${projects.join('-')}.json`);
  mkdirSync(join(root, 'build'), { recursive: true });
  rmSync(report, { force: true });
  const { status } = spawnSync(
    'npx',
    ['jest', '--selectProjects', ...projects, '--json', `--outputFile=${report}`, ...extra],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, CHROMIUM },
    },
  );
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
      readFileSync(report, 'utf8'),
    );
    counts.passed += numPassedTests;
    counts.failed += numFailedTests + numRuntimeErrorTestSuites;
    if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) counts.failed++;
  } catch {
    counts.failed++;
  }
}

ensureModules();
ensureChromium();
check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
check('format', 'npx', ['prettier', '--check', '.']);
check('types', 'npx', ['tsc', '--noEmit']);
tests('unit tests', ['core', 'app']);
ensureBuild();
tests('browser tests', ['e2e'], ['--runInBand']);
console.log(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
