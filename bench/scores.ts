import { families } from '@/core/music';
import { instruments } from '@/core/instruments';
import { openPage, startServer } from '../e2e/browser';

const RUNS = 5;

/** Time to write every family's default exercise for every instrument, ms. */
export function scoreTimes() {
  const times: number[] = [];
  for (const family of families) {
    for (const instrument of instruments) {
      if (family.unfit(instrument)) continue;
      const runs = Array.from({ length: RUNS }, () => {
        const start = performance.now();
        family.make(instrument, {}, 'exacting');
        return performance.now() - start;
      });
      times.push(Math.min(...runs));
    }
  }
  times.sort((a, b) => a - b);
  return {
    scores: times.length,
    'median ms': Number(times[times.length >> 1]!.toFixed(3)),
    'slowest ms': Number(times[times.length - 1]!.toFixed(2)),
  };
}

const PAGES = ['roaming-scale', 'subdivision-ladder', 'harmonic-climb', 'twelve-keys', 'tendency-scan'];

/** Time to engrave the defaults of some families on a phone's screen, the engraver warm. */
export async function engraveTimes() {
  const server = await startServer();
  const open = await openPage(server.url, { realTime: true });
  const rows = [];
  try {
    for (const id of PAGES) {
      await open.page.goto(`${server.url}/exercise/${id}`);
      await open.page.getByTestId('notation').locator('svg').first().waitFor();
      // Drawn once more, in the other width, when the engraver has been loaded.
      await open.page.setViewportSize({ width: 412, height: 844 });
      await open.page.waitForTimeout(400);
      const { ms, notes } = await open.page.evaluate(() => {
        const latest = performance.getEntriesByName('gold-reed-engrave').at(-1) as PerformanceMeasure;
        return { ms: latest.duration, notes: latest.detail as number };
      });
      await open.page.setViewportSize({ width: 390, height: 844 });
      rows.push({ family: id, notes, ms: Math.round(ms), 'ms for 64 notes': Math.round((64 * ms) / notes) });
    }
  } finally {
    await open.close();
    await server.stop();
  }
  return rows;
}
