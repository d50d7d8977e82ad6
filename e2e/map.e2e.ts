import type { Page } from 'playwright-core';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { noFaults, perform, steadyPlayer } from '@/core/lab';
import { duringBlock, measured, serving } from './browser';

const app = serving();

async function keep(page: Page): Promise<void> {
  await page.getByTestId('keep').click();
  await page.getByTestId('delete').waitFor();
}

test('what is played shows on the map, its seam has a page, and the log finds it', async () => {
  const page = await app.exercise('just-this-seam', 'Flute', 'simulated player');
  await page.goto(`${app.url}/map`);
  await page.getByTestId('map-empty').waitFor();
  await expect(page.getByTestId('break-76').getAttribute('aria-label')).resolves.toMatch(/not crossed yet/);

  await page.goto(`${app.url}/exercise/just-this-seam`);
  await page.getByTestId('begin').click();
  await measured(page);
  await keep(page);

  await page.getByRole('link', { name: 'Map', exact: true }).click();
  const seam = page.getByTestId('break-76');
  // The map stands before the log has been read. How many were clean is the ear's; a busy machine may tear a hole.
  await duringBlock(page, seam.and(page.getByLabel(/\d of 10,/)).waitFor());
  await seam.click();
  await page.getByTestId('map-card').click();
  await page.getByTestId('seam-row').first().click();
  await page.getByTestId('seam-holds').waitFor();
  await expect(page.getByTestId('seam-holds').innerText()).resolves.toMatch(/Clean \d of 5/);
  await page.getByTestId('memory-take').click();
  await page.getByTestId('delete').waitFor();

  // The keyboard reads the map, note by note.
  await page.goto(`${app.url}/map`);
  const slider = page.getByRole('slider', { name: 'Note on the map' });
  await slider.focus();
  const spoken = () => slider.getAttribute('aria-valuetext');
  let steps = 0;
  while (!/^E flat 5|^D sharp 5/.test((await spoken()) ?? '') && steps++ < 40)
    await page.keyboard.press('ArrowUp');
  await expect(spoken()).resolves.toMatch(/cents (low|high)|in tune/);
  await page.getByTestId('map-card').click();
  await expect(page.getByTestId('note-lies').innerText()).resolves.toMatch(/by 1 take on 1 day/);

  await page.goto(`${app.url}/log`);
  await page.getByTestId('log-search').fill('no such words');
  await page.getByText('Nothing in the log is like this.').waitFor();
  await page.getByTestId('log-search').fill('seam');
  await page.getByText('1 take of 1').waitFor();
  await page.getByTestId('take-row').click();
  await page.getByTestId('delete').waitFor();
  expect(app.complaints).toEqual([]);
});

test('free playing into the microphone names what sounds, and fills the map with its notes', async () => {
  const flute = findInstrument('flute')!;
  const made = findFamily('tendency-scan')!.make(flute, {
    range: { low: 67, high: 72 },
    beats: 2,
    tempo: 60,
  });
  if (!made.ok) throw new Error(made.problem);
  const { audio } = perform({
    score: made.value,
    instrument: flute,
    player: { ...steadyPlayer, offsetCents: 9 },
    faults: noFaults,
    seed: 3,
    sampleRate: 48_000,
    a4: 440,
    leadSeconds: 1,
    tailSeconds: 1,
  });
  const page = await app.exercise('free-playing', 'Flute', 'microphone', { microphone: audio });
  await page.getByTestId('begin').click();
  const word = page.getByTestId('word');
  await duringBlock(page, word.getByText('A4', { exact: true }).waitFor({ timeout: 60_000 }));
  await expect(page.getByTestId('hint').innerText()).resolves.toMatch(/cents high/);
  await duringBlock(page, word.getByText('C5', { exact: true }).waitFor({ timeout: 60_000 }));
  await page.getByTestId('stop').click();
  await measured(page);
  await page.getByText('What was played').waitFor();
  await expect(page.getByTestId('strip').innerText()).resolves.toMatch(/A4/);
  await keep(page);
  await page.goto(`${app.url}/map/note/69`);
  await expect(page.getByTestId('note-lies').innerText()).resolves.toMatch(
    /^(8|9|10) cents high of its pitch/,
  );
  await page.goto(`${app.url}/map/note/86`);
  await expect(page.getByTestId('note-lies').innerText()).resolves.toMatch(/not been heard yet/);
  expect(app.complaints).toEqual([]);
});
