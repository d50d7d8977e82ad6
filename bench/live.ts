import type { CDPSession, Page } from 'playwright-core';
import { chooseInstrument, openPage, startServer } from '../e2e/browser';

const TAKES = [
  { instrument: 'Flute', slower: 1 },
  { instrument: 'Bassoon', slower: 1 },
  { instrument: 'Flute', slower: 4 },
  { instrument: 'Flute', slower: 1 },
  { instrument: 'Flute', slower: 1 },
];
const TAKE_MS = 60_000;

/** What the page says of a take's thread when it ends: see src/features/stand/threadHealth.ts. */
interface Summary {
  readonly paintings: number;
  readonly paintingsPerSecond: number;
  readonly ageMedian: number;
  readonly age95: number;
  readonly paint95: number;
}

async function heap(session: CDPSession): Promise<number> {
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return usedSize / 1e6;
}

/** What a page holds once what nobody needs has been thrown away, MB. */
export const heapOf = async (page: Page): Promise<number> => heap(await page.context().newCDPSession(page));

/** Long tones of the simulated player on the stand, one after the other in one page. */
export async function liveTable() {
  const server = await startServer();
  const open = await openPage(server.url, { realTime: true });
  const { page } = open;
  await page.goto(server.url);
  const session = await page.context().newCDPSession(page);
  const rows = [];
  try {
    for (const { instrument, slower } of TAKES) {
      await chooseInstrument(page, instrument);
      await page.goto(`${server.url}/exercise/long-tone`);
      await page.getByRole('radio', { name: 'simulated player' }).click();
      await session.send('Emulation.setCPUThrottlingRate', { rate: slower });
      await page.getByTestId('begin').click();
      await page.waitForURL('**/review', { timeout: TAKE_MS });
      await session.send('Emulation.setCPUThrottlingRate', { rate: 1 });
      const summary = await page.evaluate(
        () => (performance.getEntriesByName('gold-reed-thread').at(-1) as PerformanceMark).detail as Summary,
      );
      const ms = (seconds: number) => Math.round(1000 * seconds);
      rows.push({
        instrument,
        'page slowed': `${slower}×`,
        'paintings a second': Math.round(summary.paintingsPerSecond),
        'behind the sound, median ms': ms(summary.ageMedian),
        '95 %': ms(summary.age95),
        'ms a painting, 95 %': Number(summary.paint95.toFixed(2)),
        'heap MB': Number((await heap(session)).toFixed(1)),
      });
    }
  } finally {
    await open.close();
    await server.stop();
  }
  return rows;
}

/** A strip of two hundred notes, scrolled by the wheel from end to end: screen frames that were late. */
export async function stripScroll() {
  const server = await startServer();
  const open = await openPage(server.url, { realTime: true });
  const { page } = open;
  try {
    await page.goto(`${server.url}/exercise/roaming-scale`);
    await page.getByRole('radio', { name: 'simulated player' }).click();
    const set = async (label: string, key: string, times: number) => {
      const field = page.getByRole('spinbutton', { name: label });
      await field.focus();
      for (let i = 0; i < times; i++) {
        await page.keyboard.press(key);
        await page.waitForTimeout(30);
      }
    };
    await set('Bars', 'ArrowUp', 18);
    await set('Tempo', 'ArrowUp', 10);
    await page.getByTestId('begin').click();
    await page.waitForURL('**/review', { timeout: 3 * TAKE_MS });
    await page.getByTestId('all-notes').click();
    const notes = await page.getByTestId(/^note-/).count();
    await page.evaluate(() => {
      const gaps: number[] = [];
      let last = performance.now();
      const tick = (now: number) => {
        gaps.push(now - last);
        last = now;
        requestAnimationFrame(tick);
      };
      requestAnimationFrame(tick);
      (window as unknown as { gaps: number[] }).gaps = gaps;
    });
    await page.mouse.move(190, 400);
    for (let i = 0; i < 120; i++) await page.mouse.wheel(0, 120);
    const gaps = await page.evaluate(() => (window as unknown as { gaps: number[] }).gaps);
    const sorted = [...gaps].sort((a, b) => a - b);
    return {
      notes,
      frames: gaps.length,
      'ms between frames, median': Number((sorted[sorted.length >> 1] ?? NaN).toFixed(1)),
      '95 %': Number((sorted[Math.floor(sorted.length * 0.95)] ?? NaN).toFixed(1)),
    };
  } finally {
    await open.close();
    await server.stop();
  }
}
