import { writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defaultLongTone, longTone } from '@/core/exercises';
import { encodeWav, toInt16 } from '@/core/formats';
import { findInstrument } from '@/core/instruments';
import { perform, steadyPlayer, type Player } from '@/core/simulate';
import {
  chooseInstrument,
  figure,
  openPage,
  startServer,
  type OpenPage,
  type RunningServer,
} from './browser';

const PLAY_AND_MEASURE_MS = 40_000;

let server: RunningServer;
let open: OpenPage | null = null;
beforeAll(async () => {
  server = await startServer();
});
afterEach(async () => {
  await open?.close();
  open = null;
});
afterAll(() => server.stop());

/** A held oboe note with known faults. */
function recordingOf(change: Partial<Player>, rate = 48_000): Float32Array {
  const instrument = findInstrument('oboe');
  const score = longTone({ ...defaultLongTone('oboe'), beats: 6 });
  if (!instrument || !score.ok) throw new Error('no oboe');
  const player: Player = { ...steadyPlayer, wobbleCents: 0, levelWobbleDb: 0, ...change };
  return perform({
    score: score.value,
    instrument,
    player,
    seed: 5,
    sampleRate: rate,
    a4: 440,
    leadSeconds: 1.2,
    tailSeconds: 4,
  }).audio;
}

async function visit(options: Parameters<typeof openPage>[1] = {}) {
  open = await openPage(server.url, options);
  await chooseInstrument(open.page, 'Oboe');
  await open.page.getByRole('link', { name: 'Practise' }).click();
  await open.page.getByRole('link', { name: 'One honest long tone' }).click();
  return open;
}

async function playUntilMeasured({ page }: OpenPage) {
  await page.getByTestId('begin').click();
  await page.waitForURL('**/review', { timeout: PLAY_AND_MEASURE_MS });
  await page.getByTestId('value-centre').waitFor();
}

test('a tone into the microphone is measured, kept, found after a reload, deleted and had back', async () => {
  const microphone = recordingOf({
    offsetCents: -17,
    driftCentsPerSecond: 1,
    levelDb: -24,
    levelDriftDbPerSecond: 0,
  });
  const opened = await visit({ microphone });
  const { page } = opened;
  await page.getByRole('radio', { name: 'free' }).click();
  await playUntilMeasured(opened);
  expect(Math.abs((await figure(page, 'centre')) - -17)).toBeLessThan(1.5);
  expect(Math.abs((await figure(page, 'drift')) - 1)).toBeLessThan(0.3);
  expect(Math.abs((await figure(page, 'loudness')) - -24)).toBeLessThan(1);
  await expect(page.getByTestId('value-vibrato').innerText()).resolves.toBe('none');
  await expect(page.getByTestId('summary').innerText()).resolves.toMatch(/17 low/);

  await page.getByLabel('Your remark').fill('Third reed, cold room');
  await page.getByTestId('keep').click();
  await page.getByTestId('remark').waitFor();
  await page.reload();
  await expect(page.getByTestId('remark').innerText()).resolves.toBe('Third reed, cold room');
  expect(Math.abs((await figure(page, 'centre')) - -17)).toBeLessThan(1.5);

  await page.getByTestId('hear').click();
  await page.getByText('Stop listening').waitFor();
  await page.getByTestId('hear').click();

  await page.getByTestId('delete').click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByTestId('value-centre').waitFor();
  await page.goto(`${server.url}/log`);
  await page.getByTestId('take-row').click();
  await page.getByTestId('delete').click();
  await page.getByRole('button', { name: 'To the log' }).click();
  await page.getByText('Play one long tone to begin').waitFor();
  expect(opened.complaints).toEqual([]);
});

test('the simulated player plays on the beat of a metronome that sounds in the room, and neither spoils the other', async () => {
  const opened = await visit();
  const { page } = opened;
  await page.getByRole('radio', { name: 'simulated player' }).click();
  await page.getByTestId('begin').click();
  await page.getByText('counting in').waitFor();
  await page.waitForURL('**/review', { timeout: PLAY_AND_MEASURE_MS });
  await page.getByTestId('value-centre').waitFor();
  expect(Math.abs((await figure(page, 'centre')) - steadyPlayer.offsetCents)).toBeLessThan(1);
  expect(Math.abs((await figure(page, 'latency')) - 1000 * steadyPlayer.latenessSeconds)).toBeLessThan(20);
  expect(await figure(page, 'purity')).toBeGreaterThan(7.5);
  expect(opened.complaints).toEqual([]);
});

test('a recording from a file is measured the same way', async () => {
  const opened = await visit();
  const { page } = opened;
  const file = join(mkdtempSync(join(tmpdir(), 'gold-reed-e2e-')), 'held.wav');
  const samples = recordingOf({ offsetCents: 9, vibrato: { rateHz: 5.5, extentCents: 20 } }, 44_100);
  writeFileSync(file, encodeWav(toInt16(samples.subarray(0, 7.6 * 44_100)), 44_100));
  await page.getByRole('radio', { name: 'a recording' }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose a recording', exact: true }).click(),
  ]);
  await chooser.setFiles(file);
  await page.getByText('held.wav').waitFor();
  await playUntilMeasured(opened);
  expect(Math.abs((await figure(page, 'centre')) - 9)).toBeLessThan(1);
  const vibrato = await page.getByTestId('value-vibrato').innerText();
  expect(Math.abs(Number.parseFloat(vibrato) - 5.5)).toBeLessThan(0.15);
  await expect(page.getByText('there was no beat to measure against').count()).resolves.toBe(1);
  expect(opened.complaints).toEqual([]);
});

test('a microphone that is not allowed is explained, and can be tried again', async () => {
  const { page } = await visit({ denyMicrophone: true });
  await page.getByTestId('begin').click();
  await expect(page.getByTestId('problem').innerText()).resolves.toMatch(/not allowed/);
  await expect(page.getByTestId('start').innerText()).resolves.toBe('Try again');
});

test('a page hidden in the middle of a take ends it, and keeps what was heard', async () => {
  const { page } = await visit();
  await page.getByRole('radio', { name: 'simulated player' }).click();
  await page.getByTestId('begin').click();
  await page.getByText('hold', { exact: true }).waitFor({ timeout: PLAY_AND_MEASURE_MS });
  await page.evaluate(() => {
    Object.defineProperty(document, 'hidden', { value: true });
    document.dispatchEvent(new Event('visibilitychange'));
  });
  await page.getByText('The page was hidden').waitFor();
  await page.getByTestId('value-centre').waitFor();
});
