import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { Random } from '@/core/base';
import { findInstrument } from '@/core/instruments';
import { toMusicXml } from '@/core/music/files';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { chooseSetting, measured, openPage, startServer } from '../../e2e/browser';

/** What one tab does each time it is its turn; the other does the same beside it, at its own pace. */
const STEPS = 3;

interface Tab {
  readonly name: string;
  /** Each plays something else: a take of the other would show. */
  readonly exercise: string;
  readonly title: string;
  /** Radios of a setting that is this tab's to change. */
  readonly setting: readonly [string, string];
}

const TABS: readonly Tab[] = [
  { name: 'A', exercise: 'long-tone', title: 'One honest long tone', setting: ['paper', 'dim stage'] },
  { name: 'B', exercise: 'breath-sweep', title: 'Breath sweep', setting: ['do re mi', 'C D E … B H'] },
];

/** What the pages have shown to be done. */
interface Told {
  readonly kept: Map<string, { readonly remark: string; readonly title: string }>;
  readonly pieces: Set<string>;
  readonly settings: Map<string, string>;
  discarded: number;
}

class Player {
  private done = 0;
  constructor(
    private readonly page: Page,
    private readonly url: string,
    private readonly tab: Tab,
    private readonly folder: string,
    private readonly archive: string,
    private readonly told: Told,
  ) {}

  /** Does something, or several things in a row. */
  async turn(random: Random): Promise<void> {
    for (let i = 0; i < STEPS; i++) {
      const kind = random.next();
      if (kind < 0.5) await this.play(random.next() < 0.7);
      else if (kind < 0.7) await this.set(random);
      else if (kind < 0.85) await this.bringInMusic();
      else await this.bringInArchive();
    }
  }

  private async play(keeps: boolean): Promise<void> {
    const { page, tab, told } = this;
    await page.goto(`${this.url}/exercise/${tab.exercise}`);
    await page.getByTestId('begin').click();
    await measured(page);
    if (!keeps) {
      await page.getByTestId('discard').click();
      await page.getByText('lies in the bin').waitFor();
      told.discarded++;
      return;
    }
    const remark = `${tab.name} ${++this.done}`;
    await page.getByLabel('Your remark').fill(remark);
    await page.getByTestId('keep').click();
    await page.waitForURL('**/log/**');
    told.kept.set(page.url().split('/').pop()!, { remark, title: tab.title });
  }

  private async set(random: Random): Promise<void> {
    const name = this.tab.setting[Math.floor(2 * random.next())]!;
    await this.page.goto(`${this.url}/bench/settings`);
    await chooseSetting(this.page, name);
    this.told.settings.set(this.tab.name, name);
  }

  private async choose(button: string, path: string): Promise<void> {
    const [chooser] = await Promise.all([
      this.page.waitForEvent('filechooser'),
      this.page.getByTestId(button).click(),
    ]);
    await chooser.setFiles(path);
  }

  private async bringInMusic(): Promise<void> {
    const title = `Piece ${this.tab.name} ${++this.done}`;
    const path = join(this.folder, `${title}.musicxml`);
    const score = scoreOfFamily('octave-slurs', 'flute');
    writeFileSync(path, toMusicXml({ ...score, title }, findInstrument('flute')!));
    await this.page.goto(`${this.url}/music`);
    await this.choose('import', path);
    await this.page.getByRole('heading', { level: 1, name: title }).waitFor();
    this.told.pieces.add(title);
  }

  /** A log is brought in again that is a part of this one: nothing of it is new, and nothing else may change. */
  private async bringInArchive(): Promise<void> {
    await this.page.goto(`${this.url}/bench`);
    await this.choose('import-archive', this.archive);
    await this.page.getByTestId('merge').click();
    await this.page.getByTestId('imported').waitFor();
  }
}

/** What is not as the pages had said, in words. @param latest how many of the takes are opened, of all that were kept. */
async function lookedAt(page: Page, url: string, told: Told, latest = Infinity): Promise<string[]> {
  const wrong: string[] = [];
  for (const [id, { remark, title }] of [...told.kept].slice(-Math.min(latest, told.kept.size))) {
    await page.goto(`${url}/log/${id}`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    const shown = await page.locator('body').innerText();
    if (!shown.includes(title) || !shown.includes(remark))
      wrong.push(`${remark} (${title}) shows ${shown.slice(0, 80)}`);
  }
  await page.goto(`${url}/log`);
  const count = told.kept.size === 1 ? '1 take' : `${told.kept.size} takes`;
  await page
    .getByText(count, { exact: true })
    .waitFor({ timeout: 8000 })
    .catch(() => wrong.push(`the log does not say ${count}`));
  if ((await page.getByTestId('unread').count()) > 0) wrong.push('records that cannot be read');
  await page.goto(`${url}/music`);
  for (const title of told.pieces)
    await page
      .getByText(title, { exact: true })
      .waitFor({ timeout: 8000 })
      .catch(() => wrong.push(`${title} is gone`));
  await page.goto(`${url}/bench/settings`);
  for (const name of told.settings.values())
    await page
      .getByRole('radio', { name, exact: true, checked: true })
      .waitFor({ timeout: 8000 })
      .catch(() => wrong.push(`the setting “${name}” is undone`));
  return wrong;
}

/** Two tabs play, keep, discard, set and bring in at once, in an order that chance gives. */
export async function twoTabs(count: number, seed: number) {
  const server = await startServer();
  const opened = await openPage(server.url);
  const folder = mkdtempSync(join(tmpdir(), 'gold-reed-two-tabs-'));
  const told: Told = { kept: new Map(), pieces: new Set(), settings: new Map(), discarded: 0 };
  const wrong: string[] = [];
  try {
    const [first] = TABS;
    const page = opened.page;
    await page.goto(`${server.url}/exercise/${first!.exercise}`);
    await chooseSetting(page, 'simulated player');
    await page.getByTestId('begin').click();
    await measured(page);
    await page.getByLabel('Your remark').fill('the first');
    await page.getByTestId('keep').click();
    await page.waitForURL('**/log/**');
    told.kept.set(page.url().split('/').pop()!, { remark: 'the first', title: first!.title });
    await page.goto(`${server.url}/bench`);
    const [saved] = await Promise.all([page.waitForEvent('download'), page.getByTestId('export').click()]);
    const archive = join(folder, 'log.zip');
    await saved.saveAs(archive);

    const players = await Promise.all(
      TABS.map(
        async (tab) => new Player(await page.context().newPage(), server.url, tab, folder, archive, told),
      ),
    );
    const chances = TABS.map((_, i) => new Random(1000 * seed + i));
    for (let round = 0; round < count; round++) {
      await Promise.all(players.map((player, i) => player.turn(chances[i]!)));
      const latest = STEPS * TABS.length;
      for (const each of await lookedAt(page, server.url, told, latest))
        wrong.push(`round ${round + 1}: ${each}`);
    }
    for (const each of await lookedAt(page, server.url, told)) wrong.push(`in the end: ${each}`);
    wrong.push(...opened.complaints);
  } finally {
    await opened.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  return {
    tally: {
      rounds: count,
      kept: told.kept.size,
      discarded: told.discarded,
      pieces: told.pieces.size,
      wrong: wrong.length,
    },
    wrong,
  };
}
