import { connect, createServer, type AddressInfo } from 'node:net';
import type { CDPSession, Page } from 'playwright-core';
import { openPage, startServer } from '../e2e/browser';

const TIMES = 5;
/** A phone's processor beside this one. */
const SLOWED = 4;

/** Stands before the server and counts what passes to the browser, the service worker's own fetches included. */
async function wireTo(server: string) {
  const port = Number(new URL(server).port);
  let bytes = 0;
  const wire = createServer((browser) => {
    const behind = connect(port, 'localhost');
    behind.on('data', (chunk) => (bytes += chunk.length));
    browser.pipe(behind).pipe(browser);
    browser.on('error', () => behind.destroy());
    behind.on('error', () => browser.destroy());
  });
  await new Promise<void>((done) => wire.listen(0, 'localhost', done));
  return {
    url: `http://localhost:${(wire.address() as AddressInfo).port}`,
    /** Bytes since it was last asked. */
    passed: (): number => {
      const passed = bytes;
      bytes = 0;
      return passed;
    },
    close: () => wire.close(),
  };
}

/** Bytes of the page's own scripts, as they are parsed. @returns what is counted up while the page loads. */
async function scriptsOf(protocol: CDPSession): Promise<{ bytes: number }> {
  const counted = { bytes: 0 };
  const scripts = new Set<string>();
  await protocol.send('Network.enable');
  protocol.on('Network.responseReceived', ({ requestId, type }) => {
    if (type === 'Script') scripts.add(requestId);
  });
  protocol.on('Network.dataReceived', ({ requestId, dataLength }) => {
    if (scripts.has(requestId)) counted.bytes += dataLength;
  });
  return counted;
}

/** Milliseconds from the address to the page's heading, by the page's own clock. */
async function headingAfter(page: Page, open: () => Promise<unknown>): Promise<number> {
  await open();
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  return page.evaluate(() => performance.getEntriesByName('heading')[0]?.startTime ?? NaN);
}

/** Marks when a heading is first in the page: asking from outside would tell the time of the asking. */
function markHeading(): void {
  new MutationObserver((_, observer) => {
    if (!document.querySelector('h1, [role=heading][aria-level="1"]')) return;
    performance.mark('heading');
    observer.disconnect();
  }).observe(document, { childList: true, subtree: true });
}

const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;

/** First and later visits: bytes moved, and the time until the page says what it is, on this processor and a slower one. */
export async function loadTable(demo: boolean) {
  const server = await startServer(...(demo ? ['--demo'] : []));
  const wire = await wireTo(server.url);
  const rows = [];
  try {
    for (const slowed of [1, SLOWED]) {
      const [first, later, script, moved]: [number[], number[], number[], number[]] = [[], [], [], []];
      for (let i = 0; i < TIMES; i++) {
        const opened = await openPage(wire.url, { realTime: true, offline: true });
        const { page } = opened;
        const protocol = await page.context().newCDPSession(page);
        await page.addInitScript(markHeading);
        await protocol.send('Emulation.setCPUThrottlingRate', { rate: slowed });
        const counted = await scriptsOf(protocol);
        wire.passed();
        first.push(await headingAfter(page, () => page.goto(wire.url)));
        script.push(counted.bytes);
        await page.evaluate('navigator.serviceWorker.ready');
        await page.waitForLoadState('networkidle');
        moved.push(wire.passed());
        later.push(await headingAfter(page, () => page.reload()));
        await opened.close();
      }
      rows.push({
        processor: slowed === 1 ? 'this one' : `${slowed} times slower`,
        'heading, first visit, ms': Math.round(middle(first)),
        'later, ms': Math.round(middle(later)),
        'script of the first screen, kB': Math.round(middle(script) / 1000),
        'over the wire, kB': Math.round(middle(moved) / 1000),
      });
    }
  } finally {
    wire.close();
    await server.stop();
  }
  return rows;
}
