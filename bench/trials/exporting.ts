import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from 'playwright-core';
import { logOf } from '@/store/grown.testing';
import { startServer } from '../../e2e/browser';
import { fill, models } from '../ledger';

/** Sound of a take: four seconds at 48 kHz. */
const SOUND_BYTES = 384 * 1024;
/** On a machine with much memory a browser puts off clearing up; a phone's does not. */
const PHONE_HEAP_MB = 256;
const EVERY_MS = 250;
const MOST_MB = 500;
const LONGEST_MS = 20 * 60_000;

/** Memory of its own that a process has, megabytes. What it shares with others, or has mapped from a file, is not counted. */
function ownMegabytes(pid: string): number {
  try {
    const [found] = /RssAnon:\s+\d+/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
    return found ? Number(found.split(/\s+/)[1]) / 1024 : 0;
  } catch {
    // It has ended meanwhile.
    return 0;
  }
}

const parentOf = (pid: string): string => {
  try {
    return /PPid:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? '';
  } catch {
    return '';
  }
};

/** The browser of a profile, with all that it has begun. */
function processesOf(profile: string): string[] {
  const all = readdirSync('/proc').filter((pid) => /^\d+$/.test(pid));
  const parents = new Map(all.map((pid) => [pid, parentOf(pid)]));
  const isOurs = (pid: string): boolean => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(profile);
    } catch {
      return false;
    }
  };
  const ours = new Set(all.filter(isOurs));
  const stems = (pid: string | undefined): boolean =>
    pid !== undefined && (ours.has(pid) || stems(parents.get(pid)));
  return all.filter((pid) => stems(pid));
}

/** What a piece of work takes, in megabytes above what there was before it. */
async function mostDuring<T>(profile: string, work: Promise<T>): Promise<{ done: T; most: number }> {
  const megabytes = () => processesOf(profile).reduce((sum, pid) => sum + ownMegabytes(pid), 0);
  const before = megabytes();
  let most = before;
  const watch = setInterval(() => (most = Math.max(most, megabytes())), EVERY_MS);
  try {
    return { done: await work, most: Math.round(most - before) };
  } finally {
    clearInterval(watch);
  }
}

/** Gives sound to all takes of a page's log, of the length that they say. */
const giveSound = (page: Page, ids: readonly string[]): Promise<void> =>
  page.evaluate(
    async ([names, bytes]) => {
      const noise = new Uint8Array(bytes);
      for (let at = 0; at < bytes; at += 65_536) crypto.getRandomValues(noise.subarray(at, at + 65_536));
      let text = '';
      for (let at = 0; at < bytes; at += 3072)
        text += btoa(String.fromCharCode(...noise.subarray(at, at + 3072)));
      const database = await new Promise<IDBDatabase>((done, failed) => {
        const request = indexedDB.open('gold-reed');
        request.onsuccess = () => done(request.result);
        request.onerror = () => failed(new Error('no database'));
      });
      for (const id of names) {
        const write = database.transaction('entries', 'readwrite');
        write.objectStore('entries').put(text, `audio/${id}/00000`);
        await new Promise((done) => (write.oncomplete = done));
      }
      database.close();
    },
    [ids, SOUND_BYTES] as const,
  );

/** A log of so many takes with their sound is exported, and brought in again where all of it is here already. */
export async function exporting(takes: number) {
  const server = await startServer();
  // A profile on the disk: what a browser keeps without one lies in its memory.
  const profile = mkdtempSync(join(tmpdir(), 'gold-reed-export-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: (process.env['CHROMIUM'] as string | undefined) ?? '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', `--js-flags=--max-old-space-size=${PHONE_HEAP_MB}`],
  });
  const page = context.pages()[0] ?? (await context.newPage());
  page.setDefaultTimeout(LONGEST_MS);
  try {
    await page.goto(server.url);
    await page.getByRole('heading', { level: 1 }).waitFor();
    const log = await logOf(
      takes,
      models().map((take) => ({ ...take, audio: { bytes: SOUND_BYTES } })),
    );
    await fill(page, log);
    await giveSound(
      page,
      [...log.keys()].filter((key) => key.startsWith('take/')).map((key) => key.slice('take/'.length)),
    );
    await page.goto(`${server.url}/bench`);
    await page.getByTestId('export').waitFor();
    const out = await mostDuring(
      profile,
      Promise.all([page.waitForEvent('download'), page.getByTestId('export').click()]).then(async ([saved]) =>
        saved.path(),
      ),
    );
    const bringIn = async () => {
      const [chooser] = await Promise.all([
        page.waitForEvent('filechooser'),
        page.getByTestId('import-archive').click(),
      ]);
      await chooser.setFiles(out.done);
      await page.getByTestId('merge').click();
      await page.getByTestId('imported').waitFor();
    };
    const back = await mostDuring(profile, bringIn());
    return {
      takes,
      'MB in the file': Math.round(statSync(out.done).size / 1e6),
      'MB to export': out.most,
      'MB to bring in': back.most,
      within: Math.max(out.most, back.most) <= MOST_MB,
    };
  } finally {
    await context.close();
    await server.stop();
    rmSync(profile, { recursive: true, force: true });
  }
}
