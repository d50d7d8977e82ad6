import type { Page } from 'playwright-core';
import { chooseSetting, measured, openPage, startServer } from '../../e2e/browser';
import { heapOf } from '../live';

/** Takes before what a page needs once is there. */
const WARM = 5;
/** A day of eight hours in which a minute is heard at a time. */
const TAKES_A_DAY = 480;
/** More than what is remembered of a take in the log: a few figures and a line. */
const MOST_GROWTH_MB = 60;

/** Counts the audio contexts that are made, and those that are still open; it holds none of them itself. */
const COUNTING = `{
  const Real = window.AudioContext;
  window.contexts = { made: 0, open: 0 };
  window.AudioContext = class extends Real {
    constructor(...rest) {
      super(...rest);
      window.contexts.made++;
      window.contexts.open++;
    }
    close() {
      if (this.state !== 'closed') window.contexts.open--;
      return super.close();
    }
  };
}`;

const contexts = (page: Page): Promise<{ made: number; open: number }> => page.evaluate('contexts');

/** One page that is never loaded anew: a take, kept, and the next, as many as a long day has. */
export async function longDay(takes: number) {
  const server = await startServer();
  const opened = await openPage(server.url);
  const { page } = opened;
  await page.addInitScript(COUNTING);
  const heaps: number[] = [];
  let [mostOpen, made] = [0, 0];
  try {
    await page.goto(`${server.url}/exercise/long-tone`);
    await chooseSetting(page, 'simulated player');
    for (let i = 0; i < takes; i++) {
      await page.getByTestId('begin').click();
      await measured(page);
      await page.getByTestId('keep').click();
      await page.waitForURL('**/log/**');
      await page.getByTestId('hear').click();
      await page.getByRole('button', { name: 'Stop listening' }).click();
      heaps.push(await heapOf(page));
      const counted = await contexts(page);
      made = counted.made;
      mostOpen = Math.max(mostOpen, counted.open);
      await page.getByRole('link', { name: 'Practise', exact: true }).click();
      await page.getByRole('link', { name: 'One honest long tone' }).first().click();
    }
  } finally {
    await opened.close();
    await server.stop();
  }
  const [first, last] = [heaps[Math.min(WARM, takes - 1)] ?? 0, heaps.at(-1) ?? 0];
  const perTake = (last - first) / Math.max(1, takes - 1 - WARM);
  return {
    takes,
    'heap at first, MB': Number(first.toFixed(1)),
    'heap at last, MB': Number(last.toFixed(1)),
    'grown in a day, MB': Math.round(perTake * TAKES_A_DAY),
    'audio contexts made': made,
    'open at most': mostOpen,
    flat: perTake * TAKES_A_DAY < MOST_GROWTH_MB && mostOpen <= 1,
  };
}
