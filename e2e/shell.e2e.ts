import { readFileSync } from 'node:fs';
import { arrived, serving } from './browser';

/** Script before compression that the first page may cost; the engraver, the drawings and the readers of files are not among it. */
const FIRST_LOAD_BYTES = 1_500_000;

const app = serving('--demo');

test('the demo has its own log, and the player’s stays empty', async () => {
  const page = await app.open();
  await page.getByText('Odile Farrant').waitFor();
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByText('143 takes').waitFor();
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('radio', { name: 'my own' }).click();
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByText('Play one long tone to begin').waitFor();
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('radio', { name: 'Odile’s (demo)' }).click();
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByText('143 takes').waitFor();
  expect(app.complaints).toEqual([]);
});

test('a damaged take is told of and stays where it lies, and the rest can be read', async () => {
  const page = await app.open();
  // Its takes come after its rows.
  await page.goto(`${app.url}/log/demo-023`);
  await page.getByTestId('delete').waitFor();
  await page.evaluate(async () => {
    const database = await new Promise<IDBDatabase>((done, failed) => {
      const request = indexedDB.open('gold-reed-demo');
      request.onsuccess = () => done(request.result);
      request.onerror = () => failed(new Error('no database'));
    });
    const name = database.objectStoreNames[0];
    if (!name) throw new Error('no store');
    await new Promise<void>((done) => {
      const write = database.transaction(name, 'readwrite');
      write.objectStore(name).put('{"version":1,"id":"demo-0', 'take/demo-023');
      write.oncomplete = () => done();
    });
    database.close();
  });
  await page.goto(`${app.url}/log`);
  await page.getByText('143 takes').waitFor();
  await page.locator('a[href="/log/demo-023"]').click();
  await page.getByRole('heading', { name: 'This take cannot be read' }).waitFor();
  await page.getByRole('button', { name: 'To the log' }).click();
  await expect(page.getByTestId('unread').innerText()).resolves.toMatch(/Nothing of them is lost/);
  await page.getByRole('button', { name: 'Look at them' }).click();
  await expect(page.getByTestId('unread-record').innerText()).resolves.toMatch(
    /take\/demo-023: take: .*damaged/,
  );
  expect(app.complaints).toEqual([]);
});

test('the bore is a slider for the keyboard and for a finger', async () => {
  const page = await app.exercise('long-tone', 'Flute', 'simulated player');
  const bore = page.getByRole('slider', { name: 'Note' });
  const text = () => bore.getAttribute('aria-valuetext');
  await bore.focus();
  const before = await text();
  await page.keyboard.press('ArrowUp');
  await page.waitForFunction(
    (old) => document.querySelector('[role=slider]')?.getAttribute('aria-valuetext') !== old,
    before,
  );
  const box = await bore.boundingBox();
  if (!box) throw new Error('the bore is not on the page');
  await bore.click({ position: { x: box.width / 2, y: 4 } });
  await page.waitForFunction(() =>
    /^D.*7/.test(document.querySelector('[role=slider]')?.getAttribute('aria-valuetext') ?? ''),
  );
});

test('the first load is small, and stays on this machine', async () => {
  const page = await app.blank();
  let bytes = 0;
  page.on('response', (response) => {
    if (response.url().endsWith('.js')) void response.body().then((body) => (bytes += body.length));
  });
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(app.url)) elsewhere.push(request.url());
  });
  await page.goto(app.url, { waitUntil: 'networkidle' });
  await page.getByText('Odile Farrant').waitFor();
  expect(elsewhere).toEqual([]);
  expect(bytes).toBeGreaterThan(500_000);
  expect(bytes).toBeLessThan(FIRST_LOAD_BYTES);
});

test.each([
  [390, 844],
  [844, 390],
  [1280, 800],
])('nothing is wider than a screen of %d × %d', async (width, height) => {
  const page = await app.open({ width, height });
  for (const area of ['Today', 'Practise', 'Map', 'Log', 'Bench']) {
    await page.getByRole('link', { name: area, exact: true }).click();
    await arrived(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
});

test('the app opens in the machine’s own letters where its own do not come', async () => {
  const page = await app.blank();
  await page.route('**/*.woff2', () => undefined);
  await page.goto(`${app.url}/limits`, { waitUntil: 'domcontentloaded' });
  await page.getByRole('heading', { level: 1 }).waitFor();
});

test('a log that does not open says so, and what to do', async () => {
  const page = await app.blank();
  await page.goto(`${app.url}/report`);
  await page.getByTestId('report').waitFor();
  const holder = await page.context().newPage();
  await holder.goto(`${app.url}/licences.txt`);
  await holder.evaluate(() => {
    const request = indexedDB.open('gold-reed-shell');
    request.onsuccess = () => {
      const held = request.result
        .transaction(request.result.objectStoreNames[0]!, 'readwrite')
        .objectStore('entries');
      const hold = () => (held.get('nothing').onsuccess = hold);
      hold();
    };
  });
  await page.goto(`${app.url}/report`);
  await page.getByText('Your log has not opened yet').waitFor();
  await holder.close();
  await page.getByTestId('report').waitFor();
});

test('the log of eight weeks is told on one page, and saved as one file with its sound', async () => {
  const page = await app.open();
  await page.goto(`${app.url}/log`);
  await page.getByTestId('strand').first().waitFor();
  await page.goto(`${app.url}/report`);
  const report = page.getByTestId('report');
  await report.getByRole('heading', { name: 'To listen to' }).waitFor();
  await expect(report.innerText()).resolves.toMatch(/has turned to gold/);
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByTestId('save-report').click()]);
  const text = readFileSync(await saved.path(), 'utf8');
  expect(text).toMatch(/<audio[^>]* src="data:audio\/wav;base64,UklGR/);
  expect(text).toMatch(/Alto recorder/);
  expect(app.complaints).toEqual([]);
});

test('two takes of the same music stand beside each other', async () => {
  const page = await app.open();
  await page.goto(`${app.url}/log/demo-022-2`);
  await page.getByTestId('turn').waitFor();
  await page.getByTestId('compare').click();
  await page.getByTestId('both-strips').waitFor();
  await expect(page.getByTestId('versus').innerText()).resolves.toMatch(/Pitch/);
  await page.goto(`${app.url}/map/trends`);
  await page.getByTestId('trend-row').first().click();
  await expect(page.getByTestId('change').innerText()).resolves.toMatch(/in \d+ days/);
  await page.goto(`${app.url}/map/slide`);
  await page.getByTestId('slide-advice').waitFor();
  await page.getByRole('button', { name: 'Temperature: less' }).click();
  await expect(page.getByTestId('beyond').innerText()).resolves.toMatch(/limit/);
  expect(app.complaints).toEqual([]);
});
