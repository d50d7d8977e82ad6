import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, soundingOf } from '@/core/instruments';
import { perform, steadyPlayer } from '@/core/lab';
import { BLOCK_MS, figure, measured, serving, setSlider } from './browser';

const RATE = 48_000;
const app = serving();

test('a partner who holds a note is found first, alone, and the interval is told against what was really held', async () => {
  const flute = findInstrument('flute')!;
  const [drone, partnerCents, lead] = [62, 7, 3];
  const score = scoreOfFamily('drone-work', 'flute', { interval: 'fifth', drone, partner: true });
  const { audio } = perform({
    score,
    instrument: flute,
    player: { ...steadyPlayer, offsetCents: 4, wobbleCents: 0.5 },
    seed: 3,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: lead,
    tailSeconds: 8,
  });
  const hertz = 440 * 2 ** ((soundingOf(flute, drone) - 69 + partnerCents / 100) / 12);
  // Someone plays along from before the player until a little after.
  for (let i = 0.3 * RATE; i < (lead + 9) * RATE; i++)
    for (let k = 1; k <= 8; k++) audio[i]! += (0.05 / k) * Math.sin((2 * Math.PI * k * hertz * i) / RATE);
  const page = await app.exercise('drone-work', 'Flute', 'microphone', { microphone: audio });
  await page
    .getByRole('radiogroup', { name: 'A partner or a piano holds it' })
    .getByRole('radio', { name: 'yes' })
    .click();
  await page.getByRole('radio', { name: 'fifth', exact: true }).click();
  await setSlider(page, page.getByRole('slider', { name: /^Drone/ }), drone);
  await page.getByTestId('begin').click();
  await measured(page);
  // Four cents high, against a fifth over a note that was seven high, and the pure fifth is two wide.
  const truth = 4 - partnerCents - 1.955;
  expect(Math.abs(Math.abs(await figure(page, 'just')) - Math.abs(truth))).toBeLessThan(2);
  await expect(page.getByTestId('finding-just').innerText()).resolves.toMatch(/low/);
  expect(await figure(page, 'beats')).toBeGreaterThan(0);
  expect(app.complaints).toEqual([]);
});

test('blind: nothing of the pitch is given away while it is played, and the leaning is told after', async () => {
  const page = await app.exercise('blind-tuning', 'Oboe', 'simulated player');
  for (let notes = 8; notes > 3; notes--) await page.getByRole('button', { name: 'Notes: less' }).click();
  await page.getByTestId('begin').click();
  await page.getByTestId('hint').filter({ hasText: 'the reading is hidden' }).waitFor({ timeout: BLOCK_MS });
  // Every word that the stand shows from now on.
  await page.evaluate(() => {
    const seen: string[] = [];
    Object.assign(window, { seenWords: seen });
    new MutationObserver(() => {
      const word = document.querySelector('[data-testid=word]')?.textContent;
      if (word) seen.push(word);
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  await measured(page);
  const words = await page.evaluate(() => (window as unknown as { seenWords: string[] }).seenWords);
  expect(words.length).toBeGreaterThan(3);
  expect(words.filter((word) => /high|low|\d/.test(word))).toEqual([]);
  expect(Math.abs((await figure(page, 'leaning')) - steadyPlayer.offsetCents)).toBeLessThan(1.5);
  await expect(page.getByTestId('advice').count()).resolves.toBe(0);
  expect(app.complaints).toEqual([]);
});
