import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { chooseSetting, duringBlock, measured, phase, serving } from './browser';

const app = serving();

async function playLongTone(page: Page): Promise<void> {
  await page.goto(`${app.url}/exercise/long-tone`);
  await chooseSetting(page, 'simulated player');
  await page.getByTestId('begin').click();
  await measured(page);
}

async function keepWith(page: Page, remark: string): Promise<void> {
  await page.getByLabel('Your remark').fill(remark);
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
}

test('two tabs keep each its own take; what is left in a closed one is found; the bin gives back', async () => {
  const a = await app.open();
  const b = await a.context().newPage();
  await Promise.all([playLongTone(a), playLongTone(b)]);
  await keepWith(a, 'played in A');
  // The log of the other tab shows it without being asked again.
  const log = await a.context().newPage();
  await log.goto(`${app.url}/log`);
  await log.getByText('1 take', { exact: true }).waitFor();
  await keepWith(b, 'played in B');
  await log.getByText('2 takes', { exact: true }).waitFor();
  await log.getByTestId('take-row').nth(1).waitFor();
  const rows = (await log.getByTestId('take-row').allInnerTexts()).join(' ');
  expect(rows.match(/played in [AB]/g)?.sort()).toEqual(['played in A', 'played in B']);

  // Settings of two tabs do not undo each other.
  await log.goto(`${app.url}/bench/settings`);
  await a.goto(`${app.url}/bench/settings`);
  await a.getByRole('radio', { name: 'do re mi' }).click();
  await log.getByRole('radio', { name: 'do re mi', checked: true }).waitFor();
  await log.getByRole('radio', { name: 'dim stage' }).click();
  await a.getByRole('radio', { name: 'dim stage', checked: true }).waitFor();
  await expect(a.getByRole('radio', { name: 'do re mi' }).isChecked()).resolves.toBe(true);

  // A tab is closed over a take that was neither kept nor discarded.
  await playLongTone(b);
  await a.goto(app.url);
  await a.getByRole('heading', { level: 1 }).waitFor();
  await expect(a.getByRole('button', { name: 'Look at it' }).count()).resolves.toBe(0);
  await b.close();
  await a.reload();
  await a.getByRole('button', { name: 'Look at it' }).click();
  await a.getByTestId('discard').click();
  await a.getByText('lies in the bin').waitFor();
  await a.goto(`${app.url}/log`);
  await a.getByTestId('to-bin').click();
  await a.getByText('7 days left').waitFor();
  await a.getByRole('button', { name: /Have .* back/ }).click();
  await a.getByTestId('delete').waitFor();
  await a.goto(`${app.url}/log`);
  await duringBlock(a, a.getByText('3 takes', { exact: true }).waitFor());
  expect(app.complaints).toEqual([]);
});

/** The device's disk, which can be made full. */
const DISK = `{
  const put = IDBObjectStore.prototype.put;
  IDBObjectStore.prototype.put = function (...rest) {
    if (window.diskIsFull) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    return put.apply(this, rest);
  };
}`;

test('a full disk on Keep is told, and the take is still there to be kept', async () => {
  const page = await app.blank();
  await page.addInitScript(DISK);
  await playLongTone(page);
  await page.evaluate('window.diskIsFull = true');
  await page.getByTestId('keep').click();
  await expect(page.getByTestId('failed').innerText()).resolves.toMatch(
    /no room left, so nothing was changed/,
  );
  await page.evaluate('window.diskIsFull = false');
  await page.getByRole('button', { name: 'Put this away' }).click();
  await keepWith(page, 'there was room after all');
  await expect(page.getByTestId('remark').innerText()).resolves.toBe('there was room after all');
});

/** Whoever takes the sound away from the page: a call, another program. */
const CALL = `{
  const { AudioContext } = window;
  window.AudioContext = class extends AudioContext {
    constructor(...rest) {
      super(...rest);
      window.sounding = this;
    }
  };
}`;

test('a call in the middle of a take is told within a second, and what it took is not judged', async () => {
  const page = await app.blank();
  await page.addInitScript(CALL);
  await page.goto(`${app.url}/exercise/long-tone`);
  await chooseSetting(page, 'simulated player');
  await page.getByTestId('begin').click();
  await phase(page, /counting in/);
  await page.getByText('counting in').waitFor({ state: 'hidden' });
  await page.getByTestId('stop').waitFor();
  const began = Date.now();
  await page.evaluate('window.sounding.suspend()');
  await page.getByTestId('problem').waitFor();
  expect(Date.now() - began).toBeLessThan(1000);
  await expect(page.getByTestId('problem').innerText()).resolves.toMatch(/was stopped/);
  await page.getByText('no sound', { exact: true }).waitFor();
  // The page is left: what was played of it is offered again.
  await page.goto(app.url);
  await page.getByTestId('interrupted').getByRole('button').click();
  await page.getByRole('button', { name: 'Finish' }).click();
  await measured(page);
  await expect(page.locator('body').innerText()).resolves.toMatch(/was stopped/);
  expect(app.complaints).toEqual([]);
});

test('a log is exported, lost, brought in again, and that is undone; what is no archive changes nothing', async () => {
  const page = await app.open();
  await playLongTone(page);
  await keepWith(page, 'to be exported');
  const id = page.url().split('/').pop();
  await page.goto(`${app.url}/bench`);
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByTestId('export').click()]);
  const file = join(mkdtempSync(join(tmpdir(), 'gold-reed-archive-')), 'log.zip');
  await saved.saveAs(file);
  await page.getByText('Last exported').waitFor();

  await page.goto(`${app.url}/log/${id}`);
  await page.getByTestId('delete').click();
  await page.getByText('lies in the bin').waitFor();
  await page.goto(`${app.url}/bench`);
  const choose = async (path: string) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByTestId('import-archive').click(),
    ]);
    await chooser.setFiles(path);
  };
  const other = join(mkdtempSync(join(tmpdir(), 'gold-reed-archive-')), 'other.zip');
  writeFileSync(other, 'hello');
  await choose(other);
  await expect(page.getByTestId('archive-said').innerText()).resolves.toMatch(
    /other.zip: this is no archive of Gold Reed/,
  );
  await choose(file);
  await expect(page.getByTestId('asked').innerText()).resolves.toMatch(
    /1 take \(1 with sound\).*1 take of them is not here yet/,
  );
  await page.getByTestId('merge').click();
  await expect(page.getByTestId('imported').innerText()).resolves.toMatch(/1 take brought in/);
  await page.goto(`${app.url}/log/${id}`);
  await expect(page.getByTestId('remark').innerText()).resolves.toBe('to be exported');
  await page.getByTestId('hear').click();
  await page.getByText('Stop listening').waitFor();

  await page.goto(`${app.url}/bench`);
  await choose(file);
  await page.getByTestId('replace').click();
  await page.getByTestId('imported').getByRole('button', { name: 'Undo' }).click();
  await page.getByText('As it was before').waitFor();
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByText('1 take', { exact: true }).waitFor();
  expect(app.complaints).toEqual([]);
});
