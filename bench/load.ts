import { connect, createServer, type AddressInfo } from 'node:net';
import type { CDPSession, Page } from 'playwright-core';
import * as z from 'zod';
import { median } from '@/core/base';
import { openPage, startServer } from '../e2e/browser';

const TIMES = 7;
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

/** What a visitor sees come: the still frame of the server's page, the app's own heading, and today's blocks or the first question. */
const MOMENTS = {
  frame: '#shell h1',
  heading: 'h1:not(#shell *)',
  blocks: '[data-testid="only-ten"], [data-testid="skip-welcome"]',
};

/** Marks each when it is first in the page: asking from outside would tell the time of the asking. */
function markMoments(moments: typeof MOMENTS): void {
  const left = new Set(Object.entries(moments));
  new MutationObserver((_, observer) => {
    for (const each of left)
      if (document.querySelector(each[1])) {
        performance.mark(`moment-${each[0]}`);
        left.delete(each);
      }
    if (left.size === 0) observer.disconnect();
  }).observe(document, { childList: true, subtree: true });
}

const traceEvents = z.array(
  z.looseObject({
    name: z.string(),
    pid: z.number(),
    tid: z.number(),
    /** Microseconds. */
    ts: z.number().default(0),
    /** Microseconds of the thread's own processor time. */
    tts: z.number().default(0),
    tdur: z.number().default(0),
    dur: z.number().default(0),
  }),
);

/** Milliseconds of wall and of the main thread's processor time to each moment, by the browser's own trace. */
function momentsIn(events: z.infer<typeof traceEvents>): Record<string, { wall: number; cpu: number }> {
  const marks = events.filter(({ name }) => name.startsWith('moment-'));
  const [first] = marks;
  if (!first) throw new Error('the page came to none of its moments');
  const own = events.filter(({ pid, tid }) => pid === first.pid && tid === first.tid);
  const started = own.filter(({ name }) => name === 'navigationStart').at(-1);
  if (!started) throw new Error('the trace does not tell when the page was asked for');
  const tasks = own.filter(({ name, ts }) => /RunTask$/.test(name) && ts >= started.ts);
  return Object.fromEntries(
    marks.map((mark) => {
      const cpu = tasks
        .filter(({ ts }) => ts <= mark.ts)
        .reduce((sum, { ts, dur, tdur, tts }) => sum + (ts + dur <= mark.ts ? tdur : mark.tts - tts), 0);
      return [mark.name.slice('moment-'.length), { wall: (mark.ts - started.ts) / 1000, cpu: cpu / 1000 }];
    }),
  );
}

/** Opens the page in a trace, until today's blocks stand. */
async function traced(browser: CDPSession, page: Page, open: () => Promise<unknown>) {
  const parts: unknown[] = [];
  const collect = ({ value }: { value: unknown[] }) => parts.push(...value);
  browser.on('Tracing.dataCollected', collect);
  const ended = new Promise<void>((done) => browser.once('Tracing.tracingComplete', () => done()));
  await browser.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['toplevel', 'blink.user_timing'], excludedCategories: ['*'] },
  });
  await open();
  await page.locator(MOMENTS.blocks).first().waitFor();
  await browser.send('Tracing.end');
  await ended;
  browser.off('Tracing.dataCollected', collect);
  return momentsIn(traceEvents.parse(parts));
}

/** First and later visits: bytes moved, and the time until the page stands, on this processor and a slower one. */
export async function loadTable(demo: boolean) {
  const server = await startServer(...(demo ? ['--demo'] : []));
  const wire = await wireTo(server.url);
  const rows = [];
  try {
    for (const slowed of [1, SLOWED]) {
      const visits: Record<'first' | 'later', ReturnType<typeof momentsIn>[]> = { first: [], later: [] };
      const [script, moved]: [number[], number[]] = [[], []];
      for (let i = 0; i < TIMES; i++) {
        const opened = await openPage(wire.url, { realTime: true, offline: true });
        const { page } = opened;
        const browser = await page.context().browser()!.newBrowserCDPSession();
        const protocol = await page.context().newCDPSession(page);
        await page.addInitScript(markMoments, MOMENTS);
        await protocol.send('Emulation.setCPUThrottlingRate', { rate: slowed });
        const counted = await scriptsOf(protocol);
        wire.passed();
        visits.first.push(await traced(browser, page, () => page.goto(wire.url)));
        script.push(counted.bytes);
        await page.evaluate('navigator.serviceWorker.ready');
        await page.waitForLoadState('networkidle');
        moved.push(wire.passed());
        visits.later.push(await traced(browser, page, () => page.reload()));
        await opened.close();
      }
      for (const [visit, all] of Object.entries(visits)) {
        const of = (moment: string, what: 'wall' | 'cpu') =>
          Math.round(median(all.map((each) => each[moment]?.[what] ?? NaN)));
        rows.push({
          processor: slowed === 1 ? 'this one' : `${slowed} times slower`,
          visit,
          'still frame, ms': of('frame', 'wall'),
          'heading, ms': of('heading', 'wall'),
          'its CPU, ms': of('heading', 'cpu'),
          'blocks, ms': of('blocks', 'wall'),
          'their CPU, ms': of('blocks', 'cpu'),
          ...(visit === 'first' && {
            'script, kB': Math.round(median(script) / 1000),
            'over the wire, kB': Math.round(median(moved) / 1000),
          }),
        });
      }
    }
  } finally {
    wire.close();
    await server.stop();
  }
  return rows;
}
