import type { Page } from 'playwright-core';
import { measured, phase, serving } from './browser';

const app = serving();

/** What has the focus, as it is announced. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const here = document.activeElement;
    if (here === document.body) return 'nothing';
    return `${here?.getAttribute('role') ?? here?.tagName} ${here?.getAttribute('aria-label') ?? here?.textContent}`;
  });

/** Goes on by Tab until something is reached, like someone without a pointer. */
async function tabTo(page: Page, what: RegExp): Promise<void> {
  const passed: string[] = [];
  while (!what.test(await focused(page))) {
    if (passed.length > 150) throw new Error(`no ${String(what)} among: ${passed.join(' | ')}`);
    await page.keyboard.press('Tab');
    passed.push(await focused(page));
  }
}

test('without a pointer, on a phone that lies on its side: from Today to a kept take', async () => {
  const page = await app.open({ width: 844, height: 390 });
  await page.getByRole('link', { name: 'Practise' }).waitFor();
  await tabTo(page, /Practise/);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/practise');
  await page.getByRole('link', { name: 'One honest long tone' }).waitFor();
  await tabTo(page, /One honest long tone/);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/exercise/long-tone');
  await page.getByRole('radio', { name: 'simulated player' }).waitFor();
  await tabTo(page, /radio microphone/);
  await page.keyboard.press('ArrowRight');
  await page.getByRole('radio', { name: 'simulated player', checked: true }).waitFor();
  await tabTo(page, /Begin/);
  await page.keyboard.press('Enter');
  const stand = page.getByRole('main');
  await phase(page, /counting in/);
  // All of it is on the screen: music, thread, word and keys, none behind another's edge.
  for (const part of ['word', 'stop', 'again']) {
    const box = await stand.getByTestId(part).boundingBox();
    expect(box!.y).toBeGreaterThanOrEqual(0);
    expect(box!.y + box!.height).toBeLessThanOrEqual(390);
    expect(box!.x + box!.width).toBeLessThanOrEqual(844);
  }
  await measured(page);
  await tabTo(page, /Keep/);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/log/**');
  await page.getByRole('heading', { level: 1 }).waitFor();
  expect(app.complaints).toEqual([]);
});
