/** What the other scripts need to be there. Only Node's own modules here: this runs before anything is installed. */
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** What dependency-cruiser is asked: whether a file needs itself by way of others. */
export const CYCLES = ['--config', '.dependency-cruiser.cjs', 'src', 'server', 'e2e', 'bench'];

export function say(text) {
  console.log(`— ${text}`);
}

/** Runs a command with its output shown; ends the script when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) throw error;
  if (status !== 0) process.exit(status ?? 1);
}

/** The same beside others: resolves when it has ended well, and ends the script when it fails. */
export function runAside(command, args, options = {}) {
  return new Promise((done, failed) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
    child.once('error', failed);
    child.once('exit', (status) => (status === 0 ? done() : process.exit(status ?? 1)));
  });
}

export async function ensureModules() {
  const lock = join(root, 'package-lock.json');
  const installed = join(root, 'node_modules', '.package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  if (
    existsSync(installed) &&
    spawnSync('npm', ['ls', '--silent'], { cwd: root, stdio: 'ignore' }).status === 0
  )
    return;
  say('installing packages (some minutes the first time)');
  await runAside('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Chromium without a window: it paints only what is looked at. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';

/** Installs Debian's packages whose program is not there. @param programs the file that each package brings, by its name. */
export async function ensurePackages(programs) {
  const missing = Object.keys(programs).filter((each) => !existsSync(programs[each]));
  if (missing.length === 0) return;
  say(`installing ${missing.join(', ')}`);
  await runAside('apt-get', ['update', '-qq']);
  await runAside('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
}

/** Debian's packages, each by a program that it brings. */
export const BROWSER = { 'chromium-headless-shell': CHROMIUM };
/** Browsers of other families, on a screen and a sound device that are not there. */
export const ENGINES = {
  'webkit2gtk-driver': '/usr/bin/WebKitWebDriver',
  'firefox-esr': '/usr/bin/firefox-esr',
  xvfb: '/usr/bin/xvfb-run',
  xauth: '/usr/bin/xauth',
  pulseaudio: '/usr/bin/pulseaudio',
};

export const ensureChromium = () => ensurePackages(BROWSER);

/** Everything that the built app is made of; a change in any of it asks for a new build. */
const SOURCES = [
  'src',
  'server',
  'public',
  'types',
  'scripts/build.mjs',
  'scripts/doors.cjs',
  'scripts/slim.cjs',
  'scripts/leftOut.cjs',
  'scripts/minify.mjs',
  'scripts/prove.mjs',
  'scripts/offline.mjs',
  'app.json',
  'babel.config.js',
  'metro.config.js',
  'tsconfig.json',
  'package-lock.json',
];
const STAMP = join(root, 'build', 'stamp');

function* filesIn(path) {
  if (!statSync(path).isDirectory()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!/\.test\.tsx?$/.test(name)) yield* filesIn(join(path, name));
}

function stampOfSources() {
  const hash = createHash('sha1');
  for (const source of SOURCES) {
    for (const file of filesIn(join(root, source)))
      hash.update(file.slice(root.length)).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Builds the app and the server when their sources have changed since the last build. */
export function ensureBuild() {
  const stamp = stampOfSources();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === stamp) return;
  execFileSync('node', [join(root, 'scripts', 'build.mjs')], { cwd: root, stdio: 'inherit' });
  mkdirSync(dirname(STAMP), { recursive: true });
  writeFileSync(STAMP, stamp);
}
