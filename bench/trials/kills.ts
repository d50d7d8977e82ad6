import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type Page } from 'playwright-core';
import { Random } from '@/core/base';
import { startServer } from '../../e2e/browser';
import { hurry, TIMES } from '../../e2e/hurried';

/** From the beginning of a round to the death of its browser, seconds: before, in and after a take, and while it is kept. */
const SOONEST = 1;
const LATEST = 8;
/** A bar is counted, and the player begins. */
const COUNT_MS = 6500 / TIMES;
/** Sound is kept in pieces of a second; the last one may be on its way. */
const MOST_LOST_SECONDS = 2;

interface Tally {
  kills: number;
  kept: number;
  lost: number;
  torn: number;
  interrupted: number;
  late: number;
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

/** A player who plays, keeps, plays again, discards. Ends when the browser dies under it. */
async function practise(page: Page, url: string, random: Random, told: Told): Promise<void> {
  for (;;) {
    told.playingSince = null;
    await page.goto(`${url}/exercise/long-tone`);
    await page.getByRole('radio', { name: 'simulated player', exact: true }).click();
    await page.getByTestId('begin').click();
    // Where the same block was interrupted by a death before, the stand offers to go on with it.
    const goOn = page.getByRole('button', { name: 'Go on', exact: true });
    const stop = page.getByTestId('stop');
    await goOn.or(stop).first().waitFor();
    if (await goOn.isVisible()) await goOn.click();
    // The count is over in a second here, and may not be seen.
    await stop.waitFor();
    await page.waitForTimeout(COUNT_MS);
    told.playingSince = Date.now();
    await page.waitForURL('**/review', { timeout: 60_000 });
    told.playingSince = null;
    if (random.next() < 0.25) {
      await page.getByTestId('discard').click();
      await page.getByText('lies in the bin').waitFor();
      continue;
    }
    await page.getByTestId('keep').click();
    await page.waitForURL('**/log/**');
    told.kept.add(page.url().split('/').pop()!);
  }
}

/** What the page has shown to be done. */
interface Told {
  readonly kept: Set<string>;
  playingSince: number | null;
}

/** Looks at everything again, in a browser that has been started anew. */
async function lookedAt(
  page: Page,
  url: string,
  told: Told,
  tally: Tally,
  playedMs: number | null,
): Promise<void> {
  await page.goto(url);
  await page.getByRole('heading', { level: 1 }).waitFor();
  const interrupted = page.getByTestId('interrupted');
  if (playedMs !== null && playedMs > 1000 * MOST_LOST_SECONDS) {
    tally.interrupted++;
    await interrupted.waitFor({ timeout: 8000 }).catch(() => tally.late++);
  }
  for (const id of told.kept) {
    await page.goto(`${url}/log/${id}`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    if ((await page.getByTestId('delete').count()) === 0) tally.lost++;
  }
  await page.goto(`${url}/log`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  if ((await page.getByTestId('unread').count()) > 0) tally.torn++;
}

/** The browser is killed at random moments, and everything is looked at again. */
export async function kills(count: number, seed: number): Promise<Tally> {
  const random = new Random(seed);
  const server = await startServer();
  const profile = mkdtempSync(join(tmpdir(), 'gold-reed-trials-'));
  const told: Told = { kept: new Set(), playingSince: null };
  const tally: Tally = { kills: 0, kept: 0, lost: 0, torn: 0, interrupted: 0, late: 0 };
  try {
    for (let i = 0; i < count; i++) {
      const context = await open(profile);
      const page = context.pages()[0] ?? (await context.newPage());
      const dying = practise(page, server.url, random, told).catch(() => undefined);
      await new Promise((done) => setTimeout(done, 1000 * random.between(SOONEST, LATEST)));
      const playedMs = told.playingSince === null ? null : TIMES * (Date.now() - told.playingSince);
      execFileSync('pkill', ['-9', '-f', profile]);
      await dying;
      tally.kills++;
      const again = await open(profile);
      await lookedAt(again.pages()[0] ?? (await again.newPage()), server.url, told, tally, playedMs);
      await again.close();
    }
  } finally {
    await server.stop();
    rmSync(profile, { recursive: true, force: true });
  }
  tally.kept = told.kept.size;
  return tally;
}
