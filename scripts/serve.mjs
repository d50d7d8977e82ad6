/** npm run demo, npm start: installs and builds what is missing, then serves. Other arguments go to the server. */
import { spawn } from 'node:child_process';
import { ensureBuild, ensureModules, root } from './ensure.mjs';

await ensureModules();
ensureBuild();
const server = spawn('node', ['--enable-source-maps', 'build/server/main.js', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
