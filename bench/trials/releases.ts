import type { Page } from 'playwright-core';
import { Random } from '@/core/base';
import { openPage, startServer } from '../../e2e/browser';
import { releases } from '../../e2e/releases';
import { toTheStand } from './practising';

const PAGES = ['/', '/practise', '/map', '/log', '/bench', '/music', '/instruments', '/week', '/log/bin'];
const DOINGS = ['first visit', 'walking', 'playing', 'exporting', 'offline'] as const;
/** Seconds after it began that a release lands in what is done. */
const LANDS = [0.1, 5] as const;
/** A bar that is counted, and three seconds of a tone. */
const HEARD_MS = 9000;
/** Releases that take turns; each is as new to a browser as the last. */
const NAMES = ['second', 'third'];

const shown = (page: Page) => page.getByRole('heading', { level: 1 }).first().waitFor({ timeout: 15_000 });

async function walk(page: Page, url: string): Promise<void> {
  for (const path of PAGES) {
    await page.goto(`${url}${path}`);
    await shown(page);
  }
}

/** A take from the stand into the log. @returns its id. */
async function play(page: Page, url: string): Promise<string> {
  await toTheStand(page, url);
  await page.waitForTimeout(HEARD_MS);
  const stop = page.getByTestId('stop');
  if (await stop.isVisible()) await stop.click();
  await page.waitForURL('**/review', { timeout: 60_000 });
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
  return page.url().split('/').pop()!;
}

/** Releases land at random moments; every page opens afterwards, and every take is there. */
export async function releasing(count: number, seed: number) {
  const random = new Random(seed);
  const app = releases(...NAMES);
  const server = await startServer('--app', app.served);
  const { url } = server;
  const tally = Object.fromEntries(DOINGS.map((doing) => [doing, 0])) as Record<
    (typeof DOINGS)[number],
    number
  >;
  const wrong: string[] = [];
  const kept: string[] = [];
  const player = await openPage(url, { offline: true });
  try {
    await player.page.goto(url);
    await shown(player.page);
    for (let i = 0; i < count; i++) {
      const doing = DOINGS[Math.floor(random.next() * DOINGS.length)]!;
      tally[doing]++;
      const visitor = doing === 'first visit' ? await openPage(url, { offline: true }) : player;
      const { page } = visitor;
      const landing = new Promise<void>((landed) =>
        setTimeout(
          () => {
            app.release(NAMES[i % NAMES.length]!);
            landed();
          },
          1000 * random.between(...LANDS),
        ),
      );
      try {
        if (doing === 'playing') kept.push(await play(page, url));
        else if (doing === 'exporting') {
          await page.goto(`${url}/bench`);
          const [saved] = await Promise.all([
            page.waitForEvent('download'),
            page.getByTestId('export').click(),
          ]);
          await saved.path();
        } else if (doing === 'offline') {
          await page.evaluate('navigator.serviceWorker.ready');
          await page.context().setOffline(true);
          await walk(page, url);
          await page.context().setOffline(false);
        } else await walk(page, url);
        await landing;
        await walk(page, url);
        const offered = page.getByTestId('update').getByRole('button', { name: 'Take it now' });
        if ((await offered.count()) > 0 && random.next() < 0.5) {
          await Promise.all([page.waitForEvent('load'), offered.click()]);
          await walk(page, url);
        }
      } catch (error) {
        await landing;
        wrong.push(`${i} ${doing}: ${error instanceof Error ? error.message.split('\n')[0] : String(error)}`);
        await page.context().setOffline(false);
      }
      if (visitor !== player) await visitor.close();
    }
    for (const id of kept) {
      await player.page.goto(`${url}/log/${id}`);
      await player.page
        .getByTestId('delete')
        .waitFor({ timeout: 10_000 })
        .catch(() => wrong.push(`${id} is not in the log`));
    }
  } finally {
    await player.close();
    await server.stop();
    app.remove();
  }
  return { tally, kept: kept.length, wrong };
}
