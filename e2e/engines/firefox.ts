import puppeteer, { type JSHandle } from 'puppeteer-core';
import { PHONE, untilDone, type Engine } from './engine';

const FIREFOX = '/usr/bin/firefox-esr';

/** What a page put on its console, in words: an error by its message. */
const spelled = (said: JSHandle): Promise<string> =>
  said.evaluate((it: unknown) => (it instanceof Error ? it.message : String(it)));

/** Debian's Firefox, by WebDriver BiDi. */
export async function openFirefox(): Promise<Engine> {
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: FIREFOX,
    headless: true,
    extraPrefsFirefox: { 'media.autoplay.default': 0, 'media.navigator.streams.fake': true },
  });
  const page = await browser.newPage();
  await page.setViewport(PHONE);
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error instanceof Error ? error.message : String(error)));
  page.on('console', (message) => {
    if (message.type() !== 'error') return;
    const where = page.url();
    const place = complaints.push(`${message.text()} at ${where}`) - 1;
    // A page that has been left cannot be asked any more: then the kind of what it said has to do.
    Promise.all(message.args().map(spelled)).then(
      (words) => (complaints[place] = `${words.join(' ')} at ${where}`),
      () => undefined,
    );
  });
  const found = async (place: string) => {
    const element = await page.$(`xpath/${place}`);
    if (!element) throw new Error('it is not there');
    return element;
  };
  return {
    name: `Firefox (${await browser.version()})`,
    goto: async (url) => {
      await page.goto(url);
    },
    isThere: async (place) => (await page.$(`xpath/${place}`)) !== null,
    see: async (place, ms) => {
      await untilDone(place, () => found(place), ms);
    },
    tap: (place) => untilDone(place, async () => (await found(place)).click()),
    text: (place) =>
      untilDone(place, async () => (await found(place)).evaluate((element) => element.textContent ?? '')),
    address: () => Promise.resolve(page.url()),
    complaints: () => Promise.resolve(complaints),
    picture: async () => Buffer.from(await page.screenshot()),
    close: () => browser.close(),
  };
}
