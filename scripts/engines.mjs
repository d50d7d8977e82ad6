/** npm run engines: a player's first journey in WebKit and Firefox, on a screen and a sound device that are not there. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ENGINES, ensureBuild, ensureModules, ensurePackages, root } from './ensure.mjs';
import { bundled } from './bundle.mjs';

await Promise.all([ensureModules(), ensurePackages(ENGINES)]);
ensureBuild();

const folder = mkdtempSync(join(tmpdir(), 'gold-reed-engines-'));
const socket = join(folder, 'sound');
const sound = spawn(
  'pulseaudio',
  [
    '-n',
    '--daemonize=no',
    '--exit-idle-time=-1',
    '-L',
    'module-null-sink',
    '-L',
    `module-native-protocol-unix socket=${socket} auth-anonymous=1`,
  ],
  { env: { ...process.env, XDG_RUNTIME_DIR: folder, HOME: folder }, stdio: 'ignore' },
);
for (let looks = 0; looks < 100 && !existsSync(socket); looks++)
  await new Promise((done) => setTimeout(done, 50));

const { status } = spawnSync(
  'node',
  [await bundled('e2e/engines/main.ts', 'engines'), ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PULSE_SERVER: `unix:${socket}`, XDG_RUNTIME_DIR: folder },
  },
);
sound.kill();
rmSync(folder, { recursive: true, force: true });
process.exit(status ?? 1);
