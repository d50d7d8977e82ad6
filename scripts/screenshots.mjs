/** npm run screenshots [-- name …]: one current picture of each main view, from the demo data, into docs/screenshots/. */
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM, ensureBuild, ensureChromium, ensureModules, root } from './ensure.mjs';

await Promise.all([ensureModules(), ensureChromium()]);
ensureBuild();
const { chromium } = await import('playwright-core');

const server = spawn('node', ['build/server/main.js', '--demo', '--port', '0'], { cwd: root });
const url = await new Promise((done) => {
  server.stdout.on('data', (chunk) => {
    const found = /(http:\/\/localhost:\d+)/.exec(String(chunk));
    if (found) done(found[1]);
  });
});
const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

const asked = process.argv.slice(2);

async function picture(name, path, size, prepare) {
  if (asked.length > 0 && !asked.includes(name)) return;
  const page = await (await browser.newContext({ viewport: size })).newPage();
  await page.goto(url + path);
  // The still frame of the server's page has a heading too.
  await page.locator('h1:not(#shell *)').first().waitFor();
  await page.evaluate(() => document.fonts.ready);
  await prepare?.(page);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await page.close();
}

const phone = { width: 390, height: 844 };
const wide = { width: 1280, height: 800 };
const onTheStand = async (page) => {
  await page.getByRole('radio', { name: 'simulated player' }).click();
  await page.getByTestId('begin').click();
  await page.getByText('hold', { exact: true }).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(5000);
};

const music = (page) => page.getByTestId('notation').locator('svg').first().waitFor();

await picture('today', '/', phone, (page) => page.getByTestId('only-ten').waitFor());
await picture('week', '/week', wide, (page) => page.getByTestId('week-day').first().waitFor());
await picture('between', '/exercise/long-tone', phone, async (page) => {
  await page.getByRole('radio', { name: 'simulated player' }).click();
  await page.goto(`${url}/week/day`);
  // The seam comes first: the rest after it has something to tell.
  await page
    .getByRole('button', { name: /^Leave out/ })
    .first()
    .click();
  await page.goto(url);
  await page.getByTestId('begin').click();
  await page.getByTestId('between').waitFor({ timeout: 240_000 });
  await page.waitForTimeout(4000);
});
await picture('library', '/practise', phone);
await picture('exercise', '/exercise/octave-slurs', phone, music);
await picture('instruments', '/instruments', phone);
await picture('own-music', '/exercise/twelve-keys', wide, async (page) => {
  await music(page);
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByText('MusicXML').click()]);
  const file = join(tmpdir(), 'twelve-keys.musicxml');
  await saved.saveAs(file);
  await page.goto(`${url}/music`);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByTestId('import').click()]);
  await chooser.setFiles(file);
  await page
    .getByRole('button', { name: /slurred up/ })
    .first()
    .click();
  await page.getByTestId('drill').getByTestId('notation').locator('svg').first().waitFor();
});
await picture('sheet', '/print?exercise=three-note-groups', { width: 800, height: 1000 }, music);
await picture('stand', '/exercise/octave-slurs', phone, onTheStand);
await picture('take', '/log/demo-block-11', phone);
await picture('sweep', '/log/demo-block-02', phone, (page) =>
  page.getByTestId('finding-ring').scrollIntoViewIfNeeded(),
);
const drawn = (page) => page.getByTestId('map-bore').locator('svg').first().waitFor();
await picture('map', '/map', phone, drawn);
await picture('seam', '/map/seam/80-81', phone, (page) => page.getByTestId('memory-take').first().waitFor());
await picture('trends-wide', '/map/trends', wide, (page) =>
  page.getByTestId('trend-pane').locator('svg').first().waitFor(),
);
await picture('compare', '/log/compare?id=demo-022-2', phone, (page) =>
  page.getByTestId('both-strips').waitFor(),
);
await picture('reeds', '/bench/reeds', phone, async (page) => {
  await page.getByRole('radio', { name: 'Bassoon' }).click();
  await page.getByTestId('reed').first().locator('svg').first().waitFor();
});
await picture('free', '/exercise/free-playing', phone, async (page) => {
  await page.getByRole('radio', { name: 'simulated player' }).click();
  await page.getByTestId('begin').click();
  await page
    .getByTestId('word')
    .getByText(/^[A-G]/)
    .waitFor({ timeout: 30_000 });
  await page.waitForTimeout(2500);
});
await picture('log', '/log', phone);
await picture('bench', '/bench', phone);
await browser.close();
server.kill();
