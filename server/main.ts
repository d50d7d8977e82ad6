import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { buildApp, type AppOptions } from './app';
import { threadedQueue } from './queue';
import { selfSignedPair } from './tls';
import { Uploads } from './uploads';

const USAGE = `gold-reed server
  --demo               serve the demo store
  --app FOLDER         another built app than dist/
  --port N             default: PORT or 4280
  --lan                answer to the whole network, by address or NAME.local; without it only to this machine
  --host ADDRESS       default: 127.0.0.1, with --lan 0.0.0.0
  --tls-cert FILE --tls-key FILE
                       serve https with this pair
  --tls-self-signed    make a pair in ./tls when there is none, and serve https with it`;

async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      demo: { type: 'boolean', default: false },
      app: { type: 'string' },
      port: { type: 'string' },
      host: { type: 'string' },
      lan: { type: 'boolean', default: false },
      'tls-cert': { type: 'string' },
      'tls-key': { type: 'string' },
      'tls-self-signed': { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) {
    console.log(USAGE);
    return;
  }
  const port = Number(values.port ?? process.env['PORT'] ?? 4280);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`port: "${values.port ?? process.env['PORT']}" is not a port`);
  const root = resolve(__dirname, '..', '..');
  const tls = await tlsPair(
    values['tls-cert'],
    values['tls-key'],
    values['tls-self-signed'] ? join(root, 'tls') : null,
  );
  const demoFolder = join(root, 'build', 'demo');
  if (values.demo && !existsSync(join(demoFolder, 'demo.json')))
    throw new Error('the demo data has not been built: run npm run build');
  const app = await buildApp({
    queue: threadedQueue(join(__dirname, 'analysisThread.js')),
    staticFolder: values.app === undefined ? join(root, 'dist') : resolve(values.app),
    ...(values.demo && { demoFolder }),
    ...(values.lan && { hosts: null }),
    ...(tls && { tls }),
  });
  await Uploads.sweep();
  await app.listen({ port, host: values.host ?? (values.lan ? '0.0.0.0' : '127.0.0.1') });
  const address = app.server.address();
  const chosen = typeof address === 'object' && address ? address.port : port;
  console.log(
    `Gold Reed is at ${tls ? 'https' : 'http'}://localhost:${chosen}${values.demo ? ' (with demo data)' : ''}`,
  );
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void app.close().then(() => process.exit(0)));
}

async function tlsPair(
  cert: string | undefined,
  key: string | undefined,
  ownFolder: string | null,
): Promise<AppOptions['tls']> {
  if (cert && key) return { cert: await readFile(cert, 'utf8'), key: await readFile(key, 'utf8') };
  if (cert || key) throw new Error('--tls-cert and --tls-key belong together: give both');
  return ownFolder ? selfSignedPair(ownFolder) : undefined;
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
