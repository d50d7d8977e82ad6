/** Builds the server into build/server/, the app into dist/, and the demo data into build/demo/. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root, runAside, say } from './ensure.mjs';
import { writeFonts, writeLicences } from './fonts.mjs';
import { minified } from './minify.mjs';
import { packForTheWire, writeServiceWorker } from './offline.mjs';
import { missingNames } from './prove.mjs';
import { remembered } from './remember.mjs';
import { renameScripts, scriptsIn } from './rename.mjs';

const DIST = join(root, 'dist');
const DEMO = join(root, 'build', 'demo');
const SCRIPTS = scriptsIn(DIST);
/** Programs of their own, with modules of their own numbers. */
const WORKER = /^worker-/;

const begun = Date.now();
const said = (text) => say(`${text} (${Math.round((Date.now() - begun) / 1000)} s)`);

async function buildServer() {
  await build({
    absWorkingDir: root,
    entryPoints: [
      'server/main.ts',
      'server/analysisThread.ts',
      'server/demo/makeDemo.ts',
      'server/demo/playThread.ts',
    ],
    outdir: 'build/server',
    bundle: true,
    packages: 'external',
    alias: { '@': join(root, 'src') },
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
  });
}

/** Ends the build where a name is asked for that is not there. @param chunks of one program. */
async function prove(chunks) {
  const rules = ['prove.mjs', 'leftOut.cjs'].map((name) => readFileSync(join(root, 'scripts', name), 'utf8'));
  await remembered('proved', [...rules, ...chunks].join('\n'), () => {
    const { modules, missing } = missingNames(chunks);
    if (missing.length === 0) return `${modules} modules`;
    for (const { name, asking } of missing)
      console.error(`${name} is asked for and not there, in: ${asking}`);
    say('what is left out of packages stands in scripts/leftOut.cjs and scripts/slim.cjs');
    process.exit(1);
  });
}

/** What decides what a script is made into, besides its source: the bundler names it before it is made small. */
const MAKERS = ['package-lock.json', 'scripts/minify.mjs'];

async function buildApp() {
  await runAside(
    'npx',
    [
      'expo',
      'export',
      '-p',
      'web',
      '--output-dir',
      'dist',
      '--no-minify',
      '--max-workers',
      `${availableParallelism()}`,
    ],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', CI: '1' },
    },
  );
  const scripts = readdirSync(SCRIPTS)
    .filter((name) => name.endsWith('.js'))
    .map((name) => ({ name, code: readFileSync(join(SCRIPTS, name), 'utf8') }));
  said('the app is bundled; proving that every name is there, and making it small');
  const smaller = Promise.all(
    scripts.map(async ({ name, code }) => writeFileSync(join(SCRIPTS, name), await minified(name, code))),
  );
  for (const isWorker of [false, true])
    await prove(scripts.filter(({ name }) => WORKER.test(name) === isWorker).map(({ code }) => code));
  await smaller;
  renameScripts(DIST, MAKERS.map((path) => readFileSync(join(root, path), 'utf8')).join(''));
  await writeFonts(DIST);
  writeLicences(DIST);
  await writeServiceWorker(DIST);
  await packForTheWire(DIST);
  said('the app is built');
}

/** Plays the demo's takes, unless they were played by the same program before. */
async function buildDemo() {
  const program = createHash('sha1');
  for (const name of ['makeDemo.js', 'playThread.js'])
    program.update(
      readFileSync(join(root, 'build', 'server', 'demo', name), 'utf8').replace(/^\/\/.*$/gm, ''),
    );
  const stamp = program.digest('hex');
  const kept = join(DEMO, 'stamp');
  if (existsSync(kept) && readFileSync(kept, 'utf8') === stamp) return said('the demo log is as it was');
  await runAside('node', ['--enable-source-maps', 'build/server/demo/makeDemo.js', DEMO]);
  await packForTheWire(DEMO);
  writeFileSync(kept, stamp);
  said('the demo log is played');
}

await buildServer();
said(
  'the server is built; bundling the app and playing eight weeks of demo takes, a minute or two the first time',
);
await Promise.all([buildApp(), buildDemo()]);
