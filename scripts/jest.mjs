/** npm run unit, npm run e2e: tests of the named projects; further arguments (a path, -t words) go to Jest. */
import { ensureBuild, ensureChromium, ensureModules, run } from './ensure.mjs';

await ensureModules();
const [projects = '', ...rest] = process.argv.slice(2);
if (projects === 'e2e') {
  await ensureChromium();
  ensureBuild();
}
// Jest takes whatever follows --selectProjects for names of projects, so that paths have to come before it.
run('node', ['node_modules/jest/bin/jest.js', ...rest, '--selectProjects', ...projects.split(',')]);
