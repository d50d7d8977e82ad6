import type { CDPSession } from 'playwright-core';
import { chooseInstrument, openPage, startServer } from '../e2e/browser';

const TAKES = [
  { instrument: 'Flute', slower: 1 },
  { instrument: 'Bassoon', slower: 1 },
  { instrument: 'Flute', slower: 4 },
  { instrument: 'Flute', slower: 1 },
  { instrument: 'Flute', slower: 1 },
];
const TAKE_MS = 60_000;

/** What the page says of a take's thread when it ends: see src/practice/threadHealth.ts. */
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

/** Long tones of the simulated player on the stand, one after the other in one page. */
export async function liveTable() {
  const server = await startServer();
  const open = await openPage(server.url);
  const { page, context } = open;
  const session = await context.newCDPSession(page);
  const rows = [];
  try {
    for (const { instrument, slower } of TAKES) {
      await chooseInstrument(page, instrument);
      await page.goto(`${server.url}/long-tone`);
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
