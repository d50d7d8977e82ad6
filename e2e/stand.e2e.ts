import { findFamily, type Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { noFaults, perform, steadyPlayer } from '@/core/lab';
import type { Page } from 'playwright-core';
import * as z from 'zod';
import {
  chooseSetting,
  duringBlock,
  measured,
  painted,
  phase,
  serving,
  setSlider,
  type BrowserOptions,
} from './browser';

const app = serving();

const word = (page: Page) => page.getByTestId('word').innerText();
/** Which breath is being played. */
const breath = (page: Page, numbers: RegExp) =>
  painted(page, 'body', new RegExp(`\\b${numbers.source} of \\d`));
/** Makes the browser say that the page is hidden, or seen again. */
const setHidden = (page: Page, hidden: boolean) =>
  page.evaluate((value) => {
    Object.defineProperty(document, 'hidden', { value, configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
  }, hidden);

/** Octave slurs on four notes: the range is narrowed by as many steps. */
const NARROWED = 4;
function narrowedRange(instrument: string) {
  const { range } = z
    .object({ range: z.object({ low: z.number(), high: z.number() }) })
    .parse(findFamily('octave-slurs')!.defaults(findInstrument(instrument)!, 'steady'));
  return { low: range.low + NARROWED, high: range.high };
}

async function visitSlurs(instrument: 'Flute' | 'Oboe', source: string, options: BrowserOptions = {}) {
  const page = await app.exercise('octave-slurs', instrument, source, options);
  const low = page.getByRole('slider', { name: 'Lower notes: lowest note' });
  await setSlider(page, low, narrowedRange(instrument.toLowerCase()).low);
  return page;
}

/** The same as a score for the oboe, in free time. */
const slurs = (): Score =>
  scoreOfFamily('octave-slurs', 'oboe', { tempo: null, range: narrowedRange('oboe') });

test('a whole block by the simulated player runs to its verdict without a touch, and is kept', async () => {
  const page = await visitSlurs('Flute', 'simulated player');
  await page.getByTestId('begin').click();
  await phase(page, /counting in/);
  await measured(page);
  await expect(page.getByTestId('summary').innerText()).resolves.toMatch(
    /^All 12 notes were played as written\. Every slur was clean/,
  );
  await expect(page.getByTestId('value-slurs-clean').innerText()).resolves.toBe('8 of 8');
  await expect(page.getByTestId('advice').count()).resolves.toBe(0);
  // One place from near, and its sound over and over.
  await page.getByTestId('note-1').click();
  await page.getByTestId('close-up').getByText('The slur into it was clean').waitFor();
  await page.getByTestId('hear-place').click();
  await page.getByTestId('close-up').getByRole('button', { name: 'Stop' }).click();
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
  await page.getByTestId('note-11').waitFor();
  await expect(
    page
      .getByTestId('strip')
      .getByTestId(/^note-/)
      .count(),
  ).resolves.toBe(12);
  expect(app.complaints).toEqual([]);
});

test('a microphone with known faults: the page names exactly those, says what to try, and one tap begins the drill', async () => {
  const score = slurs();
  const oboe = findInstrument('oboe')!;
  const faults = { ...noFaults, gap: 0.18, blip: 0.12 };
  const performance = perform({
    score,
    instrument: oboe,
    player: { ...steadyPlayer, riseSeconds: 0.03 },
    faults,
    seed: 6,
    sampleRate: 48_000,
    a4: 440,
    leadSeconds: 1.2,
    tailSeconds: 4,
  });
  const page = await visitSlurs('Oboe', 'microphone', { microphone: performance.audio });
  await page.getByRole('radio', { name: 'free', exact: true }).click();
  await page.getByTestId('begin').click();
  await measured(page);
  const rows = page.getByTestId('strip').getByTestId(/^note-\d+$/);
  const labels = await rows.evaluateAll((all) =>
    all.map((row) =>
      Array.from(row.querySelectorAll('*'), (part) =>
        part.children.length === 0 ? part.textContent : '',
      ).join(' '),
    ),
  );
  expect(labels).toHaveLength(12);
  const named = labels.flatMap((label, i) => [
    ...(/\bhole\b/.test(label) ? [`gap ${i}`] : []),
    ...(/\bcracked\b/.test(label) ? [`blip ${i}`] : []),
  ]);
  const truth = performance.events.map((event) => `${event.kind} ${event.noteIndex}`);
  expect(truth.length).toBeGreaterThan(2);
  expect(named.sort()).toEqual([...truth].sort());
  await expect(page.getByTestId('cause').innerText()).resolves.toMatch(/hole|mode/i);
  await page.getByText('Other ways to see it').click();
  await page.getByText('support first:').waitFor();
  await page.getByTestId('drill-it').click();
  await page.waitForURL('**/stand');
  await page.getByText('Just this seam').waitFor();
  expect(app.complaints).toEqual([]);
});

test('pedals run a block: on, this breath again, hidden pitch, metronome, the list of keys, and stop', async () => {
  // Long enough that a pedal comes before its end on a busy machine too.
  const page = await app.exercise('octave-slurs', 'Flute', 'simulated player');
  await page.getByTestId('begin').click();
  await breath(page, /2/);
  await page.keyboard.press('PageUp');
  await phase(page, /counting in/);
  await breath(page, /[12]/);
  await page.keyboard.press('h');
  await phase(page, /reading is hidden/);
  await page.keyboard.press('h');
  await page.keyboard.press('m');
  await page.keyboard.press('?');
  await expect(page.getByTestId('keys').innerText()).resolves.toMatch(/left pedal/);
  await breath(page, /3/);
  await page.keyboard.press(' ');
  await measured(page);
  await expect(page.getByText(/Played in 2 stretches/).count()).resolves.toBe(1);
  const [heard, of] = (await page.getByTestId('value-notes-played').innerText()).split(' of ').map(Number);
  expect(heard).toBeGreaterThanOrEqual(6);
  expect(heard).toBe(of);
  const all = scoreOfFamily('octave-slurs', 'flute').notes.length;
  expect(of).toBeLessThan(all);
  expect(app.complaints).toEqual([]);
});

test('a block that is interrupted by a reload is gone on with, and what was heard before counts', async () => {
  const page = await visitSlurs('Flute', 'simulated player');
  await page.getByTestId('begin').click();
  // Hurried, one page may be over between two looks at it.
  await breath(page, /[234]/);
  await page.reload();
  await page.getByText('interrupted', { exact: true }).waitFor();
  await breath(page, /[1234]/);
  await page.getByTestId('go-on').click();
  await phase(page, /counting in/);
  await breath(page, /[34]/);
  await setHidden(page, true);
  await page.getByText('paused', { exact: true }).waitFor();
  await setHidden(page, false);
  await page.getByText(/the page was hidden/).waitFor();
  await page.getByTestId('finish').click();
  await measured(page);
  const heard = Number.parseInt(await page.getByTestId('value-notes-played').innerText(), 10);
  expect(heard).toBeGreaterThanOrEqual(6);
  await expect(page.getByText(/Played in 2 stretches/).count()).resolves.toBe(1);
  // Nothing is left over to be gone on with.
  await page.goto(`${app.url}/stand`);
  await page.getByTestId('word').waitFor();
  expect(await word(page)).not.toBe('interrupted');
});

test('in free time the music waits for the player, note by note', async () => {
  const score = slurs();
  const { audio } = perform({
    score: { ...score, notes: score.notes.slice(0, 3) },
    instrument: findInstrument('oboe')!,
    player: steadyPlayer,
    seed: 2,
    sampleRate: 48_000,
    a4: 440,
    leadSeconds: 1.5,
    tailSeconds: 60,
  });
  const page = await visitSlurs('Oboe', 'microphone', { microphone: audio });
  await page.getByRole('radio', { name: 'free', exact: true }).click();
  await page.getByTestId('begin').click();
  await breath(page, /2/);
  await phase(page, /then go on/);
  expect(await word(page)).toBe('breathe');
  await page.keyboard.press('PageDown');
  await breath(page, /3/);
  await page.keyboard.press(' ');
  await measured(page);
  await expect(page.getByTestId('value-notes-played').innerText()).resolves.toBe('3 of 3');
});

test('air without the instrument runs by its picture, opens no microphone and claims nothing', async () => {
  const page = await app.exercise('air-drills', 'Flute', 'microphone', { denyMicrophone: true });
  await page.getByRole('button', { name: 'Rounds: less' }).click();
  await page.getByRole('button', { name: 'Rounds: less' }).click();
  await page.getByTestId('begin').click();
  await phase(page, /Quietly in/);
  await measured(page);
  await page.getByRole('heading', { level: 1, name: 'Done' }).waitFor();
  await expect(page.getByTestId('strip').count()).resolves.toBe(0);
});

test('limits and conditions are changed in two taps, and judging follows', async () => {
  const page = await app.exercise('long-tone', 'Flute', 'simulated player');
  await page.getByTestId('setup-toggle').click();
  await page.getByRole('button', { name: 'Slide, joint or barrel pulled out: more' }).click();
  await page.getByTestId('setup-toggle').click();
  await page.getByText('slide 1 mm').waitFor();
  await page.goto(`${app.url}/limits`);
  await chooseSetting(page, 'exacting');
  const stepper = page.getByRole('spinbutton', { name: 'cents', exact: true }).first();
  await stepper.focus();
  await page.keyboard.press('ArrowUp');
  await page.getByRole('button', { name: 'As usual for exacting' }).click();
  await page.getByRole('link', { name: 'Practise' }).click();
  await page.getByRole('link', { name: 'One honest long tone' }).click();
  await page.getByTestId('begin').click();
  await measured(page);
  await expect(page.getByTestId('conditions').innerText()).resolves.toMatch(/slide 1 mm/);
  // Four cents low is worth a word to an exacting player only.
  await duringBlock(page, page.getByTestId('cause').waitFor());
  await expect(page.getByTestId('cause').innerText()).resolves.toMatch(/4 cents low; your limit is 3 cents/);
});

test('a block waits for a note, counts in, pauses when nothing is heard, and the device is not believed where it is deaf', async () => {
  const rate = 48_000;
  // A tone after two seconds and then nothing, over and over: a slow page that misses one hears the next.
  const microphone = Float32Array.from({ length: 24 * rate }, (_, i) => {
    const t = i / rate;
    return t > 2 && t < 3 ? 0.2 * Math.sin(2 * Math.PI * 440 * t) : 1e-5 * Math.sin(i * 12.9);
  });
  const page = await visitSlurs('Flute', 'microphone', { microphone });
  await page.goto(`${app.url}/bench/settings`);
  await chooseSetting(page, 'when I play a note');
  await page.goto(`${app.url}/bench`);
  await page.getByTestId('measure-sync').click();
  await expect(page.getByTestId('sync-result').innerText()).resolves.toMatch(/clicks were not heard/);
  await page.goto(`${app.url}/exercise/octave-slurs`);
  await page.getByTestId('begin').click();
  await phase(page, /any note, and the count-in begins/);
  await phase(page, /counting in/);
  await phase(page, /any note, and the count-in begins/);
  await page.getByTestId('finish').click();
  // What it heard depends on how often the tone came until it was told to end.
  await measured(page);
  expect(app.complaints).toEqual([]);
});
