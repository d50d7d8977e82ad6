import { median } from '@/core/base';
import { logOf } from '@/store/grown.testing';
import { duringBlock, openPage, startServer } from '../e2e/browser';
import { fill, models } from './ledger';

const TIMES = 3;
/** Nothing moves any more on a page that has stood for so long. */
const STANDS_MS = 1500;

/** Every page with words of its own, and what shows that they are there. */
const PAGES: readonly (readonly [address: string, shown: string])[] = [
  ['/', '[data-testid=last-time]'],
  ['/practise', 'h1'],
  ['/exercise/octave-slurs', '[data-testid=begin]'],
  ['/log', '[data-testid=take-row]'],
  ['/log/bin', 'h1'],
  ['/log/NEWEST', '[data-testid=delete]'],
  ['/log/compare', 'h1'],
  ['/map', '[data-testid=map-bore]'],
  ['/map/note/72', '[data-testid=note-pane]'],
  ['/map/seam/60-72', '[data-testid=seam-pane]'],
  ['/map/slide', '[data-testid=slide-advice]'],
  ['/map/trends', '[data-testid=trend-row]'],
  ['/report', '[data-testid=report] ul'],
  ['/review', 'h1'],
  ['/week', '[data-testid=week-day]'],
  ['/week/wishes', 'h1'],
  ['/music', 'h1'],
  ['/instruments', 'h1'],
  ['/bench', '[data-testid=storage-use]'],
  ['/bench/reeds', 'h1'],
  ['/bench/settings', 'h1'],
  ['/limits', 'h1'],
];

/** Keeps in `window.stood` since when the app's own words stand, without anything that is still being read. */
function watchStanding(shown: string): void {
  const own = `${shown}:not(#shell *)`;
  const look = () => {
    const app = document.querySelector<HTMLElement>('#root');
    const waits = /(Reading|Opening)( [a-z ]+)? …/.test(app?.innerText ?? '');
    const stands =
      !waits && document.querySelector(own) !== null && document.querySelector('h1:not(#shell *)') !== null;
    const window = globalThis as { stood?: number | null };
    window.stood = stands ? (window.stood ?? performance.now()) : null;
  };
  new MutationObserver(look).observe(document, { childList: true, subtree: true, characterData: true });
}

/** Milliseconds until the words of each page stand that is opened by its address, in a log of so many takes. */
export async function coldTable(takes: number) {
  const server = await startServer();
  const rows = [];
  try {
    const open = await openPage(server.url, { realTime: true, offline: true });
    const context = open.page.context();
    await open.page.goto(server.url);
    await open.page.getByRole('heading', { level: 1 }).first().waitFor();
    const log = await logOf(takes, models());
    await fill(open.page, log);
    const [newest] = [...log.keys()].filter((key) => key.startsWith('take/')).map((key) => key.slice(5));
    // What is laid by for the next visit is laid by once.
    await open.page.evaluate('navigator.serviceWorker.ready');
    await open.page.close();
    for (const [address, shown] of PAGES) {
      const times: number[] = [];
      for (let i = 0; i < TIMES; i++) {
        const page = await context.newPage();
        await page.addInitScript(watchStanding, shown);
        await page.goto(server.url + address.replace('NEWEST', newest ?? ''));
        const standing = page.waitForFunction(
          (ms) => {
            const { stood } = globalThis as { stood?: number | null };
            return stood != null && performance.now() - stood > ms;
          },
          STANDS_MS,
          { polling: 100 },
        );
        await duringBlock(page, standing);
        times.push(await page.evaluate<number>('window.stood'));
        await page.close();
      }
      rows.push({
        page: address,
        'words, ms': Math.round(median(times)),
        'at most': Math.round(Math.max(...times)),
      });
    }
    await open.close();
  } finally {
    await server.stop();
  }
  return rows;
}
