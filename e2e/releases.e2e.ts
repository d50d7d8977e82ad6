import type { Page } from 'playwright-core';
import { arrived, duringBlock, openPage, startServer } from './browser';
import { releases } from './releases';

const PAGES = [
  '/practise',
  '/map',
  '/log',
  '/bench',
  '/music',
  '/instruments',
  '/week',
  '/exercise/octave-slurs',
];

/** Which release a page is of. */
const entryOf = (page: Page) =>
  page.evaluate(() => document.querySelector('script[src*="/entry-"]')!.getAttribute('src'));

let app: ReturnType<typeof releases>;
beforeAll(() => {
  app = releases('second');
});
afterAll(() => app.remove());

/** A server whose app can be replaced while it runs. */
async function serving(
  work: (url: string, release: (name: string) => void, end: () => Promise<void>) => Promise<void>,
) {
  app.release('first');
  const server = await startServer('--app', app.served);
  try {
    await work(server.url, app.release, () => server.stop());
  } finally {
    await server.stop();
  }
}

test('a release that lands while a first visit is laid by leaves no page blank, then or without a network', () =>
  serving(async (url, release, end) => {
    const opened = await openPage(url, { offline: true });
    const { page } = opened;
    await page.goto(url);
    await arrived(page);
    await page.waitForFunction(async () => (await navigator.serviceWorker.getRegistration())?.installing);
    release('second');
    for (const path of PAGES) {
      await page.goto(`${url}${path}`);
      await arrived(page);
    }
    await page.evaluate('navigator.serviceWorker.ready');
    await page.goto(url);
    await page.waitForFunction('navigator.serviceWorker.controller !== null');
    await end();
    for (const path of PAGES) {
      await page.goto(`${url}${path}`);
      await arrived(page);
    }
    await opened.close();
  }));

test('a new version is offered, taken when the player says so, and pages of the old one go on', () =>
  serving(async (url, release) => {
    const opened = await openPage(url, { offline: true });
    const { page } = opened;
    await page.goto(url);
    await page.evaluate('navigator.serviceWorker.ready');
    await page.waitForFunction('navigator.serviceWorker.controller !== null');
    const first = await entryOf(page);
    const other = await page.context().newPage();
    await other.goto(url);
    await arrived(other);
    release('second');
    await page.goto(`${url}/practise`);
    expect(await entryOf(page)).toBe(first);
    await page.getByTestId('update').getByRole('button', { name: 'Take it now' }).click();
    await page.waitForFunction(
      (old) => document.querySelector('script[src*="/entry-"]')?.getAttribute('src') !== old,
      first,
    );
    await arrived(page);
    // Its parts are still there, though the server has them no more.
    for (const area of ['Map', 'Log', 'Bench']) {
      await other.getByRole('link', { name: area, exact: true }).click();
      await arrived(other);
    }
    expect(await entryOf(other)).toBe(first);
    expect(opened.complaints).toEqual([]);
    await opened.close();
  }));

test('a page that nothing is kept for mends itself by one reload when the server has a newer version', () =>
  serving(async (url, release) => {
    const opened = await openPage(url);
    const { page } = opened;
    // Nothing is loaded ahead: the part is asked for when it is gone to.
    await page.addInitScript('window.requestIdleCallback = () => 0');
    await page.goto(url);
    await arrived(page);
    const first = await entryOf(page);
    release('second');
    await page.getByRole('link', { name: 'Bench', exact: true }).click();
    await page.getByRole('heading', { level: 1, name: /bench/i }).waitFor();
    await duringBlock(page, page.getByTestId('archive').waitFor());
    expect(await entryOf(page)).not.toBe(first);
    await opened.close();
  }));
