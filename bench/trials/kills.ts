import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type Page } from 'playwright-core';
import { Random } from '@/core/base';
import { startServer } from '../../e2e/browser';
import { hurry, TIMES } from '../../e2e/hurried';
import { madeArchive, practise, type Doing, type Told } from './practising';

/** From the beginning of a round to the death of its browser, seconds: before, in and after what is done. */
const SOONEST = 2;
const LATEST = 9;
/** Seconds of sound that a death may take. */
const MOST_LOST_SECONDS = 2;
/** Sooner, what is heard may not have been worth keeping: the player is still being counted in. */
const HEARD_MS = 2100;
/** Of the takes that are kept, so many are opened again after each death; all of them in the end. */
const LOOKED_AT = 6;

const DEATHS = ['killed', 'crashed', 'closed'] as const;
type Death = (typeof DEATHS)[number];

interface Tally {
  readonly deaths: Record<Death | Doing, number>;
  lost: number;
  torn: number;
  /** Deaths in the middle of sound, those that nothing of it was offered after, and the most seconds that were gone, in its own time. */
  midTake: number;
  notOffered: number;
  mostLost: number;
  readonly wrong: string[];
}

async function open(profile: string): Promise<BrowserContext> {
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: (process.env['CHROMIUM'] as string | undefined) ?? '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
    viewport: { width: 390, height: 844 },
  });
  await hurry(context);
  return context;
}

const pageOf = async (context: BrowserContext): Promise<Page> =>
  context.pages()[0] ?? (await context.newPage());

const DEATH_BY: Record<Death, (context: BrowserContext, profile: string) => Promise<void>> = {
  killed: async (_context, profile) => {
    execFileSync('pkill', ['-9', '-f', profile]);
    return Promise.resolve();
  },
  // Only what shows the page dies; the browser lives on, and is closed.
  crashed: async (context) => {
    const session = await context.newCDPSession(await pageOf(context));
    await Promise.race([
      session.send('Page.crash').catch(() => undefined),
      context.pages()[0]!.waitForEvent('crash'),
    ]);
    await context.close();
  },
  closed: (context) => context.close(),
};

/** Seconds of sound, in its own time, of what was played last of a block that is lying there unfinished. */
function lyingSeconds(): Promise<number> {
  return new Promise<number>((done, failed) => {
    const request = indexedDB.open('gold-reed');
    request.onerror = () => failed(new Error('no database'));
    request.onsuccess = () => {
      const entries = request.result.transaction('entries').objectStore('entries');
      const found = new Map<string, number>();
      const each = entries.openCursor(IDBKeyRange.bound('audio/running-', 'audio/running-\uffff'));
      each.onsuccess = () => {
        const at = each.result;
        if (at) {
          const stretch = (at.key as string).split('/')[1]!;
          found.set(stretch, (found.get(stretch) ?? 0) + (3 * (at.value as string).length) / 4);
          at.continue();
          return;
        }
        request.result.close();
        done(([...found.values()].at(-1) ?? 0) / 2 / 48_000);
      };
    };
  });
}

/** Looks at what was kept; says what is not as the pages had said. */
async function lookedAt(page: Page, url: string, kept: readonly string[], tally: Tally): Promise<void> {
  for (const id of kept) {
    await page.goto(`${url}/log/${id}`);
    await page
      .getByTestId('delete')
      .waitFor({ timeout: 10_000 })
      .catch(() => {
        tally.lost++;
        tally.wrong.push(`${id} is not in the log`);
      });
  }
  await page.goto(`${url}/log`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  if ((await page.getByTestId('unread').count()) > 0) tally.torn++;
}

/** After a death in the middle of sound: what was heard is offered, as an interrupted block or as a take to be kept. */
async function offered(page: Page, url: string, heardMs: number, tally: Tally): Promise<void> {
  tally.midTake++;
  await page.goto(url);
  const block = page.getByTestId('interrupted');
  const draft = page.getByRole('button', { name: 'Look at it' });
  try {
    await block.or(draft).first().waitFor({ timeout: 10_000 });
  } catch {
    tally.notOffered++;
    tally.wrong.push(`nothing is offered of ${((TIMES * heardMs) / 1000).toFixed(1)} s`);
    return;
  }
  if (await draft.isVisible()) return;
  const lost = (TIMES * heardMs) / 1000 - (await page.evaluate(lyingSeconds));
  tally.mostLost = Math.max(tally.mostLost, lost);
  if (lost > MOST_LOST_SECONDS)
    tally.wrong.push(`${lost.toFixed(1)} s of ${((TIMES * heardMs) / 1000).toFixed(1)} s are gone`);
}

/** The browser dies at random moments, in one of several ways, and everything is looked at again. */
export async function kills(count: number, seed: number): Promise<Tally & { readonly kept: number }> {
  const random = new Random(seed);
  const server = await startServer();
  const profile = mkdtempSync(join(tmpdir(), 'gold-reed-trials-'));
  const folder = mkdtempSync(join(tmpdir(), 'gold-reed-archive-'));
  const doings: Doing[] = ['opening', 'playing', 'keeping', 'exporting', 'importing', 'migrating'];
  const tally: Tally = {
    deaths: Object.fromEntries([...DEATHS, ...doings].map((name) => [name, 0])) as Tally['deaths'],
    lost: 0,
    torn: 0,
    midTake: 0,
    notOffered: 0,
    mostLost: 0,
    wrong: [],
  };
  let opened = await open(profile);
  try {
    const { archived, archive } = await madeArchive(await pageOf(opened), server.url, folder);
    await opened.close();
    const told: Told = { kept: new Set(archived), archived, listeningSince: null, doing: 'opening' };
    for (let i = 0; i < count; i++) {
      opened = await open(profile);
      const dying = practise(await pageOf(opened), server.url, archive, random, told).catch(() => undefined);
      await new Promise((done) => setTimeout(done, 1000 * random.between(SOONEST, LATEST)));
      const heardMs = told.listeningSince === null ? 0 : Date.now() - told.listeningSince;
      const death = DEATHS[Math.floor(random.next() * DEATHS.length)]!;
      tally.deaths[death]++;
      tally.deaths[told.doing]++;
      await DEATH_BY[death](opened, profile);
      await dying;
      told.listeningSince = null;
      opened = await open(profile);
      const page = await pageOf(opened);
      if (heardMs > HEARD_MS) await offered(page, server.url, heardMs, tally);
      await lookedAt(page, server.url, [...told.kept].slice(-LOOKED_AT), tally);
      await opened.close();
    }
    opened = await open(profile);
    await lookedAt(await pageOf(opened), server.url, [...told.kept], tally);
    return { ...tally, kept: told.kept.size };
  } finally {
    await opened.close();
    await server.stop();
    rmSync(profile, { recursive: true, force: true });
    rmSync(folder, { recursive: true, force: true });
  }
}
