import { byId, byRole, chosen, HEADING, type Engine } from './engine';

const ROUTES = [
  '/practise',
  '/week',
  '/map',
  '/map/trends',
  '/log',
  '/log/bin',
  '/bench',
  '/bench/settings',
  '/bench/reeds',
  '/music',
  '/instruments',
  '/limits',
  '/report',
  '/exercise/octave-slurs',
];
const PLAYER = byRole('radio', 'simulated player');
const BROKEN = '//*[contains(text(), "This page broke")]';
/** Today of a log with nothing in it, open. */
const WELCOME = byId('welcome-next');
/** What stands in a page's place until it has been loaded. */
const OPENING = '//*[text()="Opening …"]';
/** A count, a tone, its silence, and a machine without a graphics card. */
const TAKE_MS = 90_000;

/**
 * What a player does first, in this browser: every main page, then a take by the simulated player to its verdict, kept,
 * and found again after the page has been opened anew.
 * @throws naming the place that did not come.
 */
export async function journey(engine: Engine, url: string): Promise<void> {
  const see = (place: string, ms?: number) =>
    engine.see(place, ms).catch(async (cause: unknown) => {
      const shown = await engine.text('//body').catch(() => 'that cannot be read');
      throw new Error(`${await engine.address()} shows "${shown}"`, { cause });
    });
  // WebKit never opens a database again whose making was interrupted by leaving the page.
  await engine.goto(url);
  await see(WELCOME);
  for (const route of ROUTES) {
    await engine.goto(url + route);
    await see(`${HEADING}[not(${OPENING})] | ${BROKEN}`);
    if (await engine.isThere(BROKEN)) throw new Error(`${route} broke`);
  }
  await engine.goto(`${url}/exercise/long-tone`);
  await engine.tap(PLAYER);
  await see(chosen(PLAYER));
  await engine.tap(byId('begin'));
  await see(byId('value-centre'), TAKE_MS);
  const verdict = await engine.text(HEADING);
  await engine.tap(byId('keep'));
  await see(byId('delete'));
  const address = await engine.address();
  if (!/\/log\/./.test(address)) throw new Error(`the kept take is not in the log but at ${address}`);
  await engine.tap(`//nav//a[@href="/log"] | //*[@role="link"][@href="/log"] | //a[@href="/log"]`);
  await see(byId('take-row'));
  await engine.goto(address);
  await see(byId('hear'));
  const found = await engine.text(HEADING);
  if (found !== verdict) throw new Error(`kept as "${verdict}", found as "${found}"`);
}
