import type { Page } from 'playwright-core';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { simulateTake } from '@/core/lab';
import type { Take } from '@/core/take';
import { logOf } from '@/store/grown.testing';
import { heapOf } from './live';
import { measured, openPage, startServer } from '../e2e/browser';

const AT_ONCE = 200;
const TIMES = 5;

/** Takes that are filled in again and again, each of another day. */
export function models(): Take[] {
  const families = ['long-tone', 'octave-slurs', 'low-chromatics', 'tendency-scan'] as const;
  return families.flatMap((family, i) => {
    const made = findFamily(family)?.make(findInstrument('flute')!, {});
    return made?.ok ? [simulateTake({ score: made.value, seed: i + 1, sampleRate: 24_000 }).take] : [];
  });
}

/** Writes into the log of a page, past the app. */
export async function fill(page: Page, entries: ReadonlyMap<string, string>): Promise<void> {
  const all = [...entries];
  for (let at = 0; at < all.length; at += AT_ONCE)
    await page.evaluate(
      (rows) =>
        new Promise<void>((done, failed) => {
          const request = indexedDB.open('gold-reed');
          request.onerror = () => failed(new Error('no database'));
          request.onsuccess = () => {
            const database = request.result;
            const write = database.transaction('entries', 'readwrite');
            for (const [key, value] of rows) write.objectStore('entries').put(value, key);
            write.oncomplete = () => {
              database.close();
              done();
            };
          };
        }),
      all.slice(at, at + AT_ONCE),
    );
}

const middle = (values: readonly number[]) =>
  Math.round([...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN);

/** What an app does by itself after it is opened is over by then. */
const SETTLED_MS = 5000;

/** What a page does for itself after it is loaded is not counted to the next one. */
async function settled(page: Page): Promise<void> {
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.waitForTimeout(SETTLED_MS);
  await page.evaluate(() => new Promise((done) => requestIdleCallback(done)));
}

/** Milliseconds from a tap on the navigation to what it leads to, in a page that has read nothing of it yet. */
async function opening(page: Page, url: string, from: string, area: string, shown: string): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++) {
    await page.goto(`${url}${from}`);
    await settled(page);
    times.push(
      await page.evaluate(
        ([name, selector]) =>
          new Promise<number>((done) => {
            const link = Array.from(document.querySelectorAll('a')).find((each) => each.textContent === name);
            const began = performance.now();
            const look = () => {
              if (document.querySelector(selector!)) done(performance.now() - began);
              else requestAnimationFrame(look);
            };
            if (link) link.click();
            else {
              // What leads there has read all that it shows.
              history.pushState({}, '', name);
              dispatchEvent(new PopStateEvent('popstate'));
            }
            look();
          }),
        [area, shown],
      ),
    );
  }
  return middle(times);
}

async function keeping(page: Page, url: string): Promise<number> {
  await page.goto(`${url}/exercise/long-tone`);
  await page.getByRole('radio', { name: 'simulated player', exact: true }).click();
  await page.getByTestId('begin').click();
  await measured(page);
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        const began = performance.now();
        const look = () => {
          if (location.pathname.startsWith('/log/')) done(performance.now() - began);
          else requestAnimationFrame(look);
        };
        document.querySelector<HTMLElement>('[data-testid=keep]')!.click();
        look();
      }),
  );
}

/** How long pages take to open, and a take to be kept, as the log grows; in Chromium, over IndexedDB. */
export async function ledgerTable(counts: readonly number[]) {
  const takes = models();
  const server = await startServer();
  const rows = [];
  try {
    for (const count of counts) {
      const open = await openPage(server.url, { realTime: true });
      const { page } = open;
      await page.goto(server.url);
      await page.getByRole('heading', { level: 1 }).waitFor();
      const log = await logOf(count, takes);
      await fill(page, log);
      rows.push({
        takes: count,
        'MB stored': Math.round([...log.values()].reduce((sum, text) => sum + text.length, 0) / 1e6),
        'Log ms': await opening(page, server.url, '/map', 'Log', '[data-testid=take-row]'),
        'Today ms': await opening(page, server.url, '/map', 'Today', '[data-testid=last-time]'),
        'Map ms': await opening(page, server.url, '/bench', 'Map', '[data-testid=map-bore]'),
        'Trends ms': await opening(page, server.url, '/bench', '/map/trends', '[data-testid=trend-row]'),
        'Slide ms': await opening(page, server.url, '/bench', '/map/slide', '[data-testid=slide-advice]'),
        'Note ms': await opening(page, server.url, '/bench', '/map/note/72', '[data-testid=note-pane]'),
        'Seam ms': await opening(page, server.url, '/bench', '/map/seam/60-72', '[data-testid=seam-pane]'),
        'Report ms': await opening(page, server.url, '/log', '/report', '[data-testid=report] ul'),
        'Week ms': await opening(page, server.url, '/bench', '/week', '[data-testid=week-day]'),
        'Bench ms': await opening(page, server.url, '/map', 'Bench', '[data-testid=storage-use]'),
        'Keep ms': Math.round(await keeping(page, server.url)),
        'heap MB': Math.round(await heapOf(page)),
      });
      await open.close();
    }
  } finally {
    await server.stop();
  }
  return rows;
}
