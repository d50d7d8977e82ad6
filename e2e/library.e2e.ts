import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { fromMusicXml, toMidi, toMusicXml } from '@/core/music/files';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { chooseInstrument, chooseSetting, measured, serving, storing } from './browser';

const app = serving();

const music = (page: Page) => page.getByTestId('notation').first();
const words = async (page: Page) => (await music(page).getAttribute('aria-label')) ?? '';
const folder = () => mkdtempSync(join(tmpdir(), 'gold-reed-e2e-'));

test('a family is found by its purpose, changed on the bore, heard, and taken along as a file that comes back', async () => {
  const page = await app.open();
  await chooseInstrument(page, 'Bassoon');
  await page.getByRole('link', { name: 'Practise' }).click();
  await page.getByLabel('Search the exercises').fill('octave slur');
  await page.getByRole('link', { name: 'Octave slurs' }).click();
  await page.getByTestId('at-hand').click();
  await page.getByRole('link', { name: 'Practise' }).click();
  await page.getByTestId('at-hand-rows').getByText('Octave slurs').waitFor();
  await page.getByRole('radio', { name: 'the break' }).click();
  await expect(page.getByRole('link', { name: 'Melody' }).count()).resolves.toBe(0);
  await page.getByRole('link', { name: 'Octave slurs' }).click();
  await music(page).locator('svg').first().waitFor();
  const before = await words(page);
  await page.getByRole('slider', { name: 'Lower notes: lowest note' }).focus();
  await page.keyboard.press('ArrowUp');
  await page.waitForFunction(
    (text) => document.querySelector('[data-testid=notation]')?.getAttribute('aria-label') !== text,
    before,
  );
  await page.getByRole('radio', { name: 'low high high low' }).click();
  await page.getByText('With the usual fault').click();
  await page.getByText('Listen for holes in the slurs').waitFor({ timeout: 30_000 });

  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByText('MusicXML').click()]);
  const bassoon = findInstrument('bassoon');
  const back = bassoon && fromMusicXml(readFileSync(await saved.path(), 'utf8'), bassoon);
  expect(back).toMatchObject({
    ok: true,
    value: { score: { family: 'octave-slurs', parameters: { pattern: 'LHHL' } } },
  });

  // What was set is there again after a reload.
  const changed = await words(page);
  await page.reload();
  await music(page).locator('svg').first().waitFor();
  expect(await words(page)).toBe(changed);
  expect(app.complaints).toEqual([]);
});

/** Top and bottom of something on the page. */
async function extentOf(page: Page, id: string): Promise<{ top: number; bottom: number }> {
  const box = await page.getByTestId(id).first().boundingBox();
  if (!box) throw new Error(`${id} is not to be seen`);
  return { top: box.y, bottom: box.y + box.height };
}

test.each([
  [390, 844],
  [844, 390],
  [1280, 800],
])(
  'no music is wider than a screen of %d × %d, and on the stand nothing lies over the word',
  async (width, height) => {
    const page = await app.open({ width, height });
    for (const id of ['subdivision-ladder', 'harmonic-climb', 'roaming-scale', 'eight-ways', 'air-drills']) {
      await page.goto(`${app.url}/exercise/${id}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      if (id !== 'air-drills') {
        await music(page).locator('svg').first().waitFor();
        const box = await music(page).locator('svg').first().boundingBox();
        expect((box?.x ?? 0) + (box?.width ?? width + 1)).toBeLessThanOrEqual(width);
      }
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
    // Four bars tied together: more than a line of a phone at its usual size.
    await page.goto(`${app.url}/exercise/breath-sweep`);
    await chooseSetting(page, 'simulated player');
    await page.getByTestId('begin').click();
    await page.getByTestId('stop').waitFor();
    await music(page).locator('svg').first().waitFor();
    await page.getByTestId('word').filter({ hasText: 'louder' }).waitFor();
    const [notation, word, hint, stop] = await Promise.all(
      ['notation', 'word', 'hint', 'stop'].map((id) => extentOf(page, id)),
    );
    expect(notation!.top).toBeGreaterThanOrEqual(0);
    expect(notation!.bottom).toBeLessThanOrEqual(word!.top);
    expect(hint!.bottom).toBeLessThanOrEqual(stop!.top);
    expect(app.complaints).toEqual([]);
  },
);

test('own music comes in, its places are marked and cut out; what cannot be read is explained; removing can be undone', async () => {
  const page = await app.open();
  await chooseInstrument(page, 'Bassoon');
  await page.goto(`${app.url}/music`);
  const bassoon = findInstrument('bassoon')!;
  const score = scoreOfFamily('vent-flick', 'bassoon');
  const path = folder();
  const bringIn = async (name: string, content: string | Uint8Array) => {
    writeFileSync(join(path, name), content);
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByTestId('import').click(),
    ]);
    await chooser.setFiles(join(path, name));
  };
  await bringIn('broken.musicxml', '<score-partwise><part></score-partwise>');
  await expect(page.getByTestId('problem').innerText()).resolves.toMatch(
    /broken.musicxml: the file is not well-formed XML/,
  );
  await bringIn('reeds.musicxml', toMusicXml({ ...score, title: 'Down by the reeds' }, bassoon));
  await page.getByRole('heading', { level: 1, name: 'Down by the reeds' }).waitFor();
  await page.getByTestId('make-drills').click();
  await expect(page.getByTestId('drills-made').innerText()).resolves.toMatch(/^\d drills kept as a routine/);
  await page.getByRole('button', { name: 'A2 slurred up to A3' }).click();
  await page.getByTestId('drill').getByTestId('notation').locator('svg').first().waitFor();
  // The place that was cut out is practised, and judged like everything else.
  await chooseSetting(page, 'simulated player');
  await page.getByTestId('begin').click();
  await measured(page);
  await expect(page.getByTestId('finding-slurs-clean').innerText()).resolves.toMatch(/(\d+) of \1\b/);
  await page.goto(`${app.url}/music`);
  await page.getByRole('link', { name: 'Down by the reeds' }).click();
  await page.getByTestId('remove').click();
  await page.getByText('was removed').waitFor();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('link', { name: 'Down by the reeds' }).waitFor();
  await bringIn('low.mid', toMidi(score, bassoon));
  await page.getByRole('heading', { level: 1, name: 'Vent-flick' }).waitFor();

  // Of a file with several parts the fitting one stands first, and any can be taken; what is left out is said.
  const part = (id: string, step: string, octave: number) =>
    `<part id="${id}"><measure number="1"><attributes><divisions>1</divisions><time><beats>6</beats><beat-type>8</beat-type></time></attributes><note><grace/><pitch><step>${step}</step><octave>${octave}</octave></pitch><voice>1</voice></note><note><pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>3</duration><voice>1</voice></note></measure></part>`;
  await page.goto(`${app.url}/music`);
  await bringIn(
    'mill.musicxml',
    `<score-partwise><work><work-title>The mill</work-title></work><part-list><score-part id="a"><part-name>Violin</part-name></score-part><score-part id="b"><part-name>Bassoon</part-name></score-part></part-list>${part('a', 'E', 6)}${part('b', 'C', 3)}</score-partwise>`,
  );
  const lines = page.getByTestId('lines');
  await lines.waitFor();
  expect(await lines.getByRole('button').allInnerTexts()).toEqual(['Bassoon', 'Violin', 'Cancel']);
  await lines.getByRole('button', { name: 'Bassoon' }).click();
  await page.getByRole('heading', { level: 1, name: 'The mill, Bassoon' }).waitFor();
  await expect(page.getByTestId('remark').innerText()).resolves.toBe('Left out: one grace note.');
  expect(app.complaints).toEqual([]);
});

test('an instrument of one’s own is copied, changed, checked, and played from then on', async () => {
  const page = await app.open();
  await chooseInstrument(page, 'Whistle in D');
  await page.getByTestId('own').click();
  await page.getByLabel('Name').fill('');
  await expect(page.getByTestId('problem').innerText()).resolves.toMatch(/name: must not be empty/);
  await page.getByLabel('Name').fill('Harbour whistle');
  await page.getByRole('radio', { name: 'quarter-tones' }).click();
  await page.getByRole('button', { name: 'Sounds, against written: more' }).click();
  await page.getByTestId('keep').click();
  await page.getByRole('button', { name: 'Change “Harbour whistle”' }).waitFor();
  await page.goto(`${app.url}/exercise/tendency-scan`);
  await music(page).locator('svg').first().waitFor();
  // Quarter-tones are gone through when they are asked for.
  expect(await words(page)).not.toMatch(/half sharp/);
  await chooseSetting(page, 'quarter-tones');
  await page.getByLabel(/Harbour whistle.*half sharp/).waitFor();
  // What was played on it outlives it.
  await page.goto(`${app.url}/exercise/long-tone`);
  await chooseSetting(page, 'simulated player');
  await page.getByTestId('begin').click();
  await measured(page);
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
  await page.goto(`${app.url}/instruments`);
  await page.getByRole('button', { name: 'Change “Harbour whistle”' }).click();
  // Both in one go: the log stays open when the removing has ended.
  const log = await page.getByRole('link', { name: 'Log' }).elementHandle();
  await page.getByRole('button', { name: 'Remove this instrument' }).evaluate((remove: HTMLElement, link) => {
    remove.click();
    (link as HTMLElement).click();
  }, log);
  await page
    .getByTestId('take-row')
    .getByText(/Harbour whistle/)
    .waitFor();
  await page.goto(`${app.url}/instruments`);
  await page.getByRole('button', { name: 'Have “Harbour whistle” back' }).click();
  await page.getByText('Mine', { exact: true }).waitFor();
  expect(app.complaints).toEqual([]);
});

test('a minor scale is read as the clarinet sounds at a tap, and what is said of it names the notes so too', async () => {
  const page = await app.open();
  await chooseInstrument(page, 'B♭ clarinet');
  await page.goto(`${app.url}/exercise/roaming-scale`);
  await page.getByRole('radio', { name: 'minor, raised seventh', exact: true }).click();
  await chooseSetting(page, 'simulated player');
  await music(page).locator('svg').first().waitFor();
  const written = await words(page);
  expect(written).toMatch(/from C 4 to D 6: C 4/);
  await storing(page, () => page.getByRole('button', { name: 'As it sounds: B♭4 for C5' }).click());
  await music(page)
    .and(page.getByLabel(/from B flat 3 to C 6: B flat 3/))
    .waitFor();
  // What is said of a take follows.
  await page.goto(`${app.url}/exercise/long-tone`);
  await page.getByTestId('begin').click();
  await measured(page);
  const first = page.getByTestId('note-0');
  await first.getByText('B♭4', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'As it is written: C5, not B♭4' }).click();
  await first.getByText('C5', { exact: true }).waitFor();
  expect(app.complaints).toEqual([]);
});

test('a tuning file is brought in, and a sheet is printed as ink on white', async () => {
  const page = await app.open();
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByTestId('to-settings').click();
  const file = join(folder(), 'meadow.scl');
  const bringIn = async (text: string) => {
    writeFileSync(file, text);
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: /tuning file/ }).click(),
    ]);
    await chooser.setFiles(file);
  };
  await bringIn('Meadow\n12\n9/8\n');
  await expect(page.getByTestId('tuning-problem').innerText()).resolves.toMatch(
    /promises 12 degrees and has 1/,
  );
  await bringIn(`Meadow\n12\n${Array.from({ length: 12 }, (_, i) => `${100 * (i + 1)}.0`).join('\n')}\n`);
  await page.getByRole('radio', { name: 'Meadow', checked: true }).waitFor();
  await page.goto(`${app.url}/print?exercise=swells`);
  await music(page).locator('svg').first().waitFor();
  await page.emulateMedia({ media: 'print' });
  expect(await page.getByRole('button', { name: 'Print' }).isVisible()).toBe(false);
  await page.getByText('Grow over four beats').waitFor();
  expect(app.complaints).toEqual([]);
});
