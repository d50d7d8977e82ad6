import { toInt16 } from '@/core/base';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium, type Browser, type Locator, type Page } from 'playwright-core';
import { encodeWav } from '@/core/formats';
import type { Showing } from './environment';
import { hurry } from './hurried';
import { hearInstead, MICROPHONE_RATE } from './microphone';

const ROOT = resolve(__dirname, '..');
export const CHROMIUM = (process.env['CHROMIUM'] as string | undefined) ?? '/usr/bin/chromium-headless-shell';

/** What a browser answers for a player who says no; without a window there is nobody to ask. */
const REFUSAL = `navigator.mediaDevices.getUserMedia = () =>
  Promise.reject(new DOMException('Permission denied', 'NotAllowedError'))`;

/** The built server on a free port. */
interface RunningServer {
  readonly url: string;
  stop(): Promise<void>;
}

export function startServer(...options: string[]): Promise<RunningServer> {
  const server: ChildProcess = spawn('node', ['build/server/main.js', '--port', '0', ...options], {
    cwd: ROOT,
  });
  return new Promise((done, failed) => {
    let output = '';
    const listen = (chunk: Buffer) => {
      output += chunk.toString();
      const found = /(https?:\/\/localhost:\d+)/.exec(output);
      if (!found?.[1]) return;
      done({
        url: found[1],
        stop: () =>
          new Promise((stopped) => {
            if (server.exitCode !== null) return stopped();
            server.once('exit', () => stopped());
            server.kill();
          }),
      });
    };
    server.stdout?.on('data', listen);
    server.stderr?.on('data', listen);
    server.once('exit', (code) => failed(new Error(`the server ended with ${code}: ${output}`)));
  });
}

export interface BrowserOptions {
  /** What the microphone hears, over and over, at 48 kHz; without it there is a microphone that is silent. */
  readonly microphone?: Float32Array;
  /** The sound comes through the browser's own device, with what that loses, and in real time. */
  readonly throughDevice?: boolean;
  readonly denyMicrophone?: boolean;
  /** With what a first visit lays by for where there is no network: nothing else needs it. */
  readonly offline?: boolean;
  /** Music in its own time: for tests of the clock itself. */
  readonly realTime?: boolean;
  readonly width?: number;
  readonly height?: number;
}

interface OpenPage {
  readonly page: Page;
  /** What went wrong in the page, and requests that left this machine. */
  readonly complaints: string[];
  close(): Promise<void>;
}

const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--autoplay-policy=no-user-gesture-required',
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
];
const launch = (args: readonly string[] = []): Promise<Browser> =>
  chromium.launch({ executablePath: CHROMIUM, args: [...ARGS, ...args] });

/** A browser of its own whose microphone device plays this, over and over. */
async function hearing(microphone: Float32Array): Promise<Browser> {
  const folder = mkdtempSync(join(tmpdir(), 'gold-reed-e2e-'));
  const file = join(folder, 'microphone.wav');
  writeFileSync(file, encodeWav(toInt16(microphone), MICROPHONE_RATE));
  const browser = await launch([`--use-file-for-fake-audio-capture=${file}`]);
  browser.on('disconnected', () => rmSync(folder, { recursive: true, force: true }));
  return browser;
}

/**
 * Opens a page in headless Chromium, on a phone's screen unless asked otherwise, with a profile of its own.
 * @param running whose page it is to be, unless it needs a device that plays; otherwise a browser of its own.
 */
export async function openPage(
  url: string,
  options: BrowserOptions = {},
  running?: Browser,
): Promise<OpenPage> {
  const device = options.throughDevice ? options.microphone : undefined;
  const own = device ? await hearing(device) : running ? null : await launch();
  const browser = own ?? running!;
  const context = await browser.newContext({
    viewport: { width: options.width ?? 390, height: options.height ?? 844 },
  });
  // What is laid by for where there is no network has to be what was built, and hurrying changes the worklet.
  if (!device && !options.realTime && !options.offline) await hurry(context);
  if (!options.offline) await context.addInitScript('delete Navigator.prototype.serviceWorker');
  if (options.denyMicrophone) await context.addInitScript(REFUSAL);
  if (options.microphone && !device) await hearInstead(context, options.microphone);
  const page = await context.newPage();
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(message.text());
  });
  page.on('request', (request) => {
    if (!/^(data|blob):/.test(request.url()) && !request.url().startsWith(url))
      complaints.push(`left for ${request.url()}`);
  });
  return {
    page,
    complaints,
    async close() {
      await context.close();
      await own?.close();
    },
  };
}

/** What an empty log begins with. */
const FIRST_INSTRUMENT = 'Flute';

/**
 * For a file of tests: the built server, and one page at a time that is closed after its test.
 * @param options of the server, such as `--demo`.
 */
export function serving(...options: string[]) {
  let server: RunningServer;
  let browser: Browser;
  let opened: OpenPage | null = null;
  const showing: Showing = async () =>
    opened
      ? `${opened.page.url()}\n${await opened.page.locator('body').innerText({ timeout: 5000 })}`
      : 'no page';
  beforeAll(async () => {
    Object.assign(globalThis, { showing });
    [server, browser] = await Promise.all([startServer(...options), launch()]);
  });
  afterEach(async () => {
    await opened?.close();
    opened = null;
  });
  afterAll(() => Promise.all([server.stop(), browser.close()]));
  /** A page that has been nowhere yet. */
  const blank = async (options?: BrowserOptions): Promise<Page> => {
    opened = await openPage(server.url, options, browser);
    return opened.page;
  };
  const open = async (options?: BrowserOptions): Promise<Page> => {
    const page = await blank(options);
    await page.goto(server.url);
    return page;
  };
  return {
    get url() {
      return server.url;
    },
    get complaints(): readonly string[] {
      return opened?.complaints ?? ['no page was opened'];
    },
    blank,
    open,
    /** The page of an exercise, for an instrument, listening to a source. */
    async exercise(
      family: string,
      instrument: string,
      source: string,
      browser?: BrowserOptions,
    ): Promise<Page> {
      const page = await blank(browser);
      if (options.includes('--demo') || instrument !== FIRST_INSTRUMENT) {
        await page.goto(server.url);
        await chooseInstrument(page, instrument);
      }
      await page.goto(`${server.url}/exercise/${family}`);
      if (source !== 'microphone') await chooseSetting(page, source);
      return page;
    },
  };
}

/** The longest that a block of these tests lasts, with its measuring. */
export const BLOCK_MS = 90_000;

/** Waits for something of a block; when it does not come, says what the page shows instead. */
export async function duringBlock(page: Page, coming: Promise<unknown>): Promise<void> {
  try {
    await coming;
  } catch (error) {
    const shown = await page.locator('body').innerText();
    throw new Error(`${page.url()} shows instead: ${shown.slice(0, 800)}`, { cause: error });
  }
}

/** A page of the app is there: not only the still frame that stands until the app does. */
export const arrived = (page: Page): Promise<void> =>
  duringBlock(page, page.locator('h1:not(#shell *)').first().waitFor());

/** Waits for words in every picture that the page paints: some last half a second, and a locator may look twice a second. */
export function painted(page: Page, where: string, words: RegExp): Promise<void> {
  const seen = page.waitForFunction(
    ([selector, pattern]) => new RegExp(pattern).test(document.querySelector(selector)?.textContent ?? ''),
    [where, words.source] as const,
    { timeout: BLOCK_MS },
  );
  return duringBlock(page, seen);
}

/** What the stand says of where in a block it is. */
export const phase = (page: Page, hint: RegExp): Promise<void> => painted(page, '[data-testid=hint]', hint);

/** What is being played has ended, and its verdict is there. */
export async function measured(page: Page): Promise<void> {
  await duringBlock(page, page.waitForURL('**/review', { timeout: BLOCK_MS }));
  await page.getByTestId('summary').waitFor();
}

/** The number that a finding on the page shows; its minus sign is a true one. */
export async function figure(page: Page, id: string): Promise<number> {
  const text = await page.getByTestId(`value-${id}`).innerText();
  return Number.parseFloat(text.replace('−', '-'));
}

/** Waits until what changes the settings is stored: a page that is left at once would be left before. */
export async function storing(page: Page, change: () => Promise<void>): Promise<void> {
  const stored = page.evaluate(
    () =>
      new Promise<void>((done) => {
        const channel = new BroadcastChannel('gold-reed-changes');
        channel.onmessage = ({ data }: MessageEvent<{ parts: string[] }>) => {
          if (!data.parts.includes('settings')) return;
          channel.close();
          done();
        };
      }),
  );
  await change();
  await stored;
}

/** Chooses a setting, and waits until it is stored. */
export async function chooseSetting(page: Page, name: string): Promise<void> {
  const radio = page.getByRole('radio', { name, exact: true });
  if (await radio.isChecked()) return;
  await storing(page, () => radio.click());
}

/** Moves a slider to a value, step by step as a keyboard does, whatever it stood at when its page was ready. */
export async function setSlider(page: Page, slider: Locator, value: number): Promise<void> {
  await slider.focus();
  for (;;) {
    const now = await slider.getAttribute('aria-valuenow');
    if (Number(now) === value) return;
    await page.keyboard.press(Number(now) < value ? 'ArrowUp' : 'ArrowDown');
    await page.waitForFunction((old) => document.activeElement?.getAttribute('aria-valuenow') !== old, now);
  }
}

/** What is played from now on. */
export async function chooseInstrument(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: 'Practise' }).click();
  await page.getByRole('button', { name: 'Instrument', exact: true }).click();
  await chooseSetting(page, name);
  await page.getByRole('heading', { level: 1, name }).waitFor();
}
