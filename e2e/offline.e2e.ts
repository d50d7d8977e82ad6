import { arrived, chooseSetting, measured, openPage, startServer } from './browser';

test('after one visit every page opens, and a take is played, judged and kept, with the server gone', async () => {
  const server = await startServer();
  const opened = await openPage(server.url, { offline: true });
  const { page } = opened;
  await page.goto(server.url);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.evaluate('navigator.serviceWorker.ready');
  await page.waitForFunction('navigator.serviceWorker.controller !== null');
  const manifest = await page.evaluate(async () => {
    const link = document.querySelector<HTMLLinkElement>('link[rel=manifest]');
    return link ? ((await (await fetch(link.href)).json()) as { icons: { src: string }[] }) : null;
  });
  expect(manifest?.icons.length).toBeGreaterThanOrEqual(2);
  await server.stop();

  for (const path of [
    '/',
    '/practise',
    '/map',
    '/log',
    '/bench',
    '/bench/settings',
    '/music',
    '/instruments',
    '/limits',
    '/log/bin',
  ]) {
    await page.goto(`${server.url}${path}`);
    await arrived(page);
  }
  await page.goto(`${server.url}/exercise/octave-slurs`);
  await page.getByTestId('notation').locator('svg').first().waitFor();
  await page.goto(`${server.url}/exercise/long-tone`);
  await chooseSetting(page, 'simulated player');
  await page.getByTestId('begin').click();
  await measured(page);
  await page.getByTestId('keep').click();
  await page.waitForURL('**/log/**');
  await page.reload();
  await page.getByTestId('hear').waitFor();

  await page.goto(`${server.url}/no/such/page`);
  await page.getByRole('heading', { name: 'There is nothing here' }).waitFor();
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByText('1 take', { exact: true }).waitFor();
  await opened.close();
});
