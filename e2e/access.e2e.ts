import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { arrived, chooseSetting, duringBlock, serving } from './browser';

const app = serving('--demo');
const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const ROUTES = [
  '/',
  '/week',
  '/week/day',
  '/week/wishes',
  '/week/print',
  '/open',
  '/session/end',
  '/practise',
  '/exercise/octave-slurs',
  '/exercise/breath-sweep',
  '/instruments',
  '/music',
  '/map',
  '/map/note/74',
  '/map/slide',
  '/map/trends',
  '/log',
  '/log/bin',
  '/bench',
  '/bench/reeds',
  '/bench/settings',
  '/limits',
  '/report',
  '/print?exercise=swells',
  '/no-such-page',
];

interface Found {
  readonly id: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

/**
 * What is wrong with a page for those who cannot see it, or not well, or have no mouse.
 * @param only these rules, of all.
 */
async function findings(page: Page, only: readonly string[] | null = null): Promise<string[]> {
  await page.evaluate(AXE);
  const found = await page.evaluate(async (runOnly) => {
    const { axe } = window as unknown as {
      axe: { run(of: Document, how: object): Promise<{ violations: Found[] }> };
    };
    const asked = { resultTypes: ['violations'], ...(runOnly && { runOnly }) };
    return (await axe.run(document, asked)).violations;
  }, only);
  return found.flatMap(({ id, nodes }) =>
    nodes
      .slice(0, 3)
      .map(({ html, failureSummary }) => `${id}: ${html.slice(0, 160)} ${failureSummary.slice(0, 200)}`),
  );
}

async function shown(page: Page, path: string): Promise<void> {
  await page.goto(app.url + path);
  await arrived(page);
  // Several parts of a page may be arriving, each with its own placeholder.
  await page.waitForFunction(() => !/(Opening|Reading)[^\n]* …/.test(document.body.innerText));
}

it('finds nothing wrong on any page, light or dark', async () => {
  const page = await app.open();
  const wrong: Record<string, string[]> = {};
  for (const path of ROUTES) {
    await shown(page, path);
    // What the two have not in common is their colours.
    for (const [theme, rules] of [
      ['light', null],
      ['dark', ['color-contrast']],
    ] as const) {
      await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
      const found = await findings(page, rules);
      if (found.length > 0) wrong[`${path} ${theme}`] = found;
    }
  }
  expect(wrong).toEqual({});
});

it('finds nothing wrong on the stand, between blocks, and on a verdict', async () => {
  const page = await app.open();
  await page.goto(`${app.url}/exercise/long-tone`);
  await chooseSetting(page, 'simulated player');
  await page.goto(app.url);
  await page.getByTestId('begin').click();
  await duringBlock(page, page.getByTestId('stop').waitFor({ timeout: 30_000 }));
  expect(await findings(page)).toEqual([]);
  await duringBlock(page, page.getByTestId('between').waitFor({ timeout: 120_000 }));
  expect(await findings(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.waitForURL('**/session/end');
  await page.getByTestId('moved').waitFor();
  expect(await findings(page)).toEqual([]);
  await page.getByTestId('moved').getByRole('link').first().click();
  await page.getByTestId('summary').waitFor();
  expect(await findings(page)).toEqual([]);
});
