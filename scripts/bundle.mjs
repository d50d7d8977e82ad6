/** Programs of ours in TypeScript, made into one file that Node runs. */
import { basename, join } from 'node:path';
import { root } from './ensure.mjs';
import { takesStamps } from './takesStamp.cjs';

/** @returns the file; programs that drive a browser are left to their packages. */
export async function bundled(entry, name = basename(entry, '.ts')) {
  const { build } = await import('esbuild');
  const outfile = join(root, 'build', `${name}.cjs`);
  await build({
    absWorkingDir: root,
    entryPoints: [entry],
    outfile,
    bundle: true,
    alias: { '@': join(root, 'src') },
    define: { STAMPS: JSON.stringify(takesStamps(root)) },
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    external: ['playwright-core', 'puppeteer-core'],
    logLevel: 'warning',
  });
  return outfile;
}
