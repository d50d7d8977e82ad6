import { join } from 'node:path';
import type { Download, Page } from 'playwright-core';
import type { Random } from '@/core/base';
import { TIMES } from '../../e2e/hurried';

/** A bar is counted, and the player begins. */
const COUNT_MS = 6500 / TIMES;
/** What is heard of a take before it is stopped: from, and up to. */
const HEARD_MS = [400, 2500] as const;

/** What the pages have shown to be done, whatever became of the browser after it. */
export interface Told {
  readonly kept: Set<string>;
  /** Takes that were given back to the log by bringing an archive in are kept again. */
  readonly archived: readonly string[];
  /** Since when the stand listens to a block, its count-in included, by this machine's clock; null: to none that can be gone on with. */
  listeningSince: number | null;
  doing: Doing;
}

export type Doing = 'opening' | 'playing' | 'keeping' | 'exporting' | 'importing' | 'migrating';

/** The rows of a log are made anew from its takes, as when a log of before there were rows is opened. */
export function withoutRows(): Promise<void> {
  return new Promise<void>((done, failed) => {
    const request = indexedDB.open('gold-reed');
    request.onerror = () => failed(new Error('no database'));
    request.onsuccess = () => {
      const database = request.result;
      const write = database.transaction('entries', 'readwrite');
      const entries = write.objectStore('entries');
      const keys = entries.getAllKeys();
      keys.onsuccess = () => {
        for (const key of keys.result)
          if (/^(entries\/|cells\/|meta$)/.test(key as string)) entries.delete(key);
      };
      write.oncomplete = () => {
        database.close();
        done();
      };
    };
  });
}

/** Until the stand counts in a block, the one that was interrupted before if there is one. */
export async function toTheStand(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/exercise/long-tone`);
  await page.getByRole('radio', { name: 'simulated player', exact: true }).click();
  await page.getByTestId('begin').click();
  // Where the same block was interrupted by a death before, the stand offers to go on with it.
  const goOn = page.getByRole('button', { name: 'Go on', exact: true });
  await goOn.or(page.getByTestId('stop')).first().waitFor();
  if (await goOn.isVisible()) await goOn.click();
  await page.getByTestId('stop').waitFor();
}

async function play(page: Page, url: string, random: Random, told: Told): Promise<void> {
  await toTheStand(page, url);
  for (;;) {
    told.listeningSince = Date.now();
    // The count is over in a second here, and may not be seen.
    await page.waitForTimeout(COUNT_MS);
    told.doing = 'playing';
    await page.waitForTimeout(random.between(...HEARD_MS));
    const stop = page.getByTestId('stop');
    const again = random.next() < 0.2 && (await page.getByTestId('again').isVisible());
    told.listeningSince = null;
    told.doing = 'keeping';
    if (!again) {
      if (await stop.isVisible()) await stop.click({ timeout: 1000 }).catch(() => undefined);
      break;
    }
    await page.getByTestId('again').click();
  }
  await page.waitForURL('**/review', { timeout: 60_000 });
  if (random.next() < 0.2) {
    await page.getByTestId('discard').click();
    await page.getByText('lies in the bin').waitFor();
    return;
  }
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
  told.kept.add(page.url().split('/').pop()!);
}

async function exported(page: Page, url: string): Promise<Download> {
  await page.goto(`${url}/bench`);
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByTestId('export').click()]);
  return saved;
}

async function exportAll(page: Page, url: string, told: Told): Promise<void> {
  told.doing = 'exporting';
  await (await exported(page, url)).path();
}

/** One take of an archive is deleted, and comes back with it. */
async function bringBack(
  page: Page,
  url: string,
  archive: string,
  random: Random,
  told: Told,
): Promise<void> {
  const id = told.archived[Math.floor(random.next() * told.archived.length)]!;
  await page.goto(`${url}/log/${id}`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  if (told.kept.has(id)) {
    told.kept.delete(id);
    await page.getByTestId('delete').click();
    await page.getByText('lies in the bin').waitFor();
  }
  await page.goto(`${url}/bench`);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByTestId('import-archive').click(),
  ]);
  await chooser.setFiles(archive);
  await page.getByTestId('merge').waitFor();
  told.doing = 'importing';
  await page.getByTestId('merge').click();
  await page.getByTestId('imported').waitFor();
  for (const each of told.archived) told.kept.add(each);
}

async function migrate(page: Page, url: string, told: Told): Promise<void> {
  await page.goto(`${url}/limits`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.evaluate(withoutRows);
  told.doing = 'migrating';
  await page.goto(`${url}/log`);
  const count = told.kept.size === 1 ? '1 take' : `${told.kept.size} takes`;
  await page.getByText(count, { exact: true }).waitFor({ timeout: 20_000 });
}

/** A player who plays, keeps, plays again, discards, exports, brings in. Ends when the browser dies under it. */
export async function practise(
  page: Page,
  url: string,
  archive: string,
  random: Random,
  told: Told,
): Promise<void> {
  for (;;) {
    told.doing = 'opening';
    const kind = random.next();
    if (kind < 0.55) await play(page, url, random, told);
    else if (kind < 0.7) await exportAll(page, url, told);
    else if (kind < 0.85) await bringBack(page, url, archive, random, told);
    else await migrate(page, url, told);
  }
}

/** Two short takes, kept, and the archive that holds them. */
export async function madeArchive(page: Page, url: string, folder: string) {
  const archived: string[] = [];
  for (let i = 0; i < 2; i++) {
    await toTheStand(page, url);
    await page.waitForURL('**/review', { timeout: 60_000 });
    await page.getByTestId('keep').click();
    await page.waitForURL('**/log/**');
    archived.push(page.url().split('/').pop()!);
  }
  const archive = join(folder, 'log.zip');
  await (await exported(page, url)).saveAs(archive);
  return { archived, archive };
}
