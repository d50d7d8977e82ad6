import { execFileSync } from 'node:child_process';
import { mkdtempSync, renameSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const ROOT = resolve(__dirname, '..');

/** The built app, and others of which every script has another name: what a server has one after the other. */
export function releases(...names: string[]) {
  const folder = mkdtempSync(join(tmpdir(), 'gold-reed-releases-'));
  for (const name of ['first', ...names])
    execFileSync('node', ['scripts/release.mjs', join(folder, name), ...(name === 'first' ? [] : [name])], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  const served = join(folder, 'served');
  /** Puts one in the place of the one before, in one go. */
  const release = (name: string) => {
    symlinkSync(join(folder, name), `${served}.next`);
    renameSync(`${served}.next`, served);
  };
  release('first');
  return { served, release, remove: () => rmSync(folder, { recursive: true }) };
}
