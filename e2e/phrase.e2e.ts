import { findInstrument } from '@/core/instruments';
import { noFaults, perform, steadyPlayer } from '@/core/lab';
import { scoreNoteSchema, scoreOf, type ScoreNote } from '@/core/music';
import { duringBlock, measured, serving } from './browser';

const app = serving();

/** A phrase of two bars: written pitches and crotchets. */
const PHRASE = [
  [67, 1],
  [69, 0.5],
  [71, 0.5],
  [74, 2],
  [72, 1.5],
  [71, 0.5],
  [67, 2],
] as const;
const APART = 4;

/** The phrase twice, the second time with a wrong note in it. */
function playedTwice() {
  const flute = findInstrument('flute')!;
  const length = PHRASE.reduce((sum, [, beats]) => sum + beats, 0);
  const notes = [0, 1].flatMap((time): ScoreNote[] => {
    let at = time * (length + APART);
    return PHRASE.map(([written, beats], i) => {
      const note = scoreNoteSchema.parse({
        written: time === 1 && i === 4 ? written + 1 : written,
        startBeat: at,
        beats,
        attack: 'tongued',
        dynamic: 'mf',
      });
      at += beats;
      return note;
    });
  });
  return perform({
    score: scoreOf({
      family: 'own-music',
      title: 'Twice',
      instrumentId: flute.id,
      tempo: 76,
      beatsPerBar: 4,
      countInBeats: 0,
      vibrato: 'none',
      notes,
    }),
    instrument: flute,
    player: steadyPlayer,
    faults: noFaults,
    seed: 4,
    sampleRate: 48_000,
    a4: 440,
    leadSeconds: 1,
    // What a microphone of these tests hears begins anew at its end.
    tailSeconds: 60,
  });
}

test('a phrase that is played in twice is set down, mended, named, and stands in all keys', async () => {
  const { audio } = playedTwice();
  const page = await app.exercise('free-playing', 'Flute', 'microphone', { microphone: audio });
  await page.goto(`${app.url}/music`);
  await page.getByTestId('play-in').click();
  await page.getByTestId('begin').click();
  // Notes go by faster here than a page is looked at: it says itself what it showed.
  await page.evaluate(() => {
    const seen: string[] = [];
    Object.assign(window, { seen });
    new MutationObserver(() => {
      const text = document.querySelector('[data-testid=word]')?.textContent ?? '';
      if (seen[seen.length - 1] !== text) seen.push(text);
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  await duringBlock(
    page,
    page.waitForFunction(
      // Its long notes alone: a short one may come and go between two paintings.
      () => /D5 .*G4 .*D5 .*G4/.test((window as unknown as { seen: string[] }).seen.join(' ')),
      null,
      { timeout: 60_000 },
    ),
  );
  await page.getByTestId('stop').click();
  await measured(page);
  await page.getByTestId('set-down').click();
  const told = page.getByTestId('phrase-told');
  await expect(told.innerText()).resolves.toMatch(/^7 notes, played twice\. Look at C♯5: not the same/);
  await page.getByTestId('notation').locator('svg').first().waitFor();

  await page.getByTestId('phrase-note-4').click();
  await page.keyboard.press('ArrowDown');
  await page.getByTestId('phrase-note-4').getByText('C5', { exact: true }).waitFor();
  // An arrow on a control that has the focus moves that one, and not the note's pitch as well.
  await page.getByRole('spinbutton', { name: 'Silence after it' }).focus();
  await page.keyboard.press('ArrowUp');
  await page.getByRole('spinbutton', { name: 'Silence after it' }).getByText('½ beat').waitFor();
  await page.getByTestId('phrase-note-4').getByText('C5', { exact: true }).waitFor();
  await page.getByTestId('phrase-undo').click();
  await page.getByTestId('note-out').click();
  await page.getByTestId('phrase-note-6').waitFor({ state: 'detached' });
  await page.getByTestId('phrase-undo').click();
  await page.getByTestId('phrase-note-6').waitFor();
  await page.getByLabel('Its name').fill('Heron at dusk');
  await page.getByTestId('keep-phrase').click();

  await page.getByRole('heading', { level: 1, name: 'Heron at dusk' }).waitFor();
  await page
    .getByRole('img', { name: /7 notes in 2 bars, from G 4 to D 5: G 4, A 4, B 4, D 5, C 5, B 4, G 4$/ })
    .waitFor();
  await page.getByRole('radio', { name: 'round the circle of fourths' }).click();
  await page.getByRole('button', { name: 'Show the notes' }).click();
  await page.getByRole('img', { name: /84 notes in 24 bars/ }).waitFor();
  expect(app.complaints).toEqual([]);
});
