import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { chromium } from 'playwright-core';
import { CHROMIUM } from './browser';
import type { Draw, Paper } from './engraving/page';

const ROOT = resolve(__dirname, '..');
const WORDS = 'node_modules/@expo-google-fonts/alegreya-sans/700Bold/AlegreyaSans_700Bold.ttf';

/** The phone on the stand, a wide screen, and the sheet. */
export const PAPERS: Readonly<Record<'phone' | 'wide' | 'sheet', Paper>> = {
  phone: { width: 374, scale: 1.35 },
  wide: { width: 760, scale: 1.35 },
  sheet: 'sheet',
};

/** A page with the engraver alone, that draws music and measures what of it runs into what. */
export async function openGallery(): Promise<{
  draw(family: string, instrument: string, paper: Paper): Promise<string[] | null>;
  close(): Promise<void>;
}> {
  const script = join(ROOT, 'build', 'engraving.js');
  execFileSync(join(ROOT, 'node_modules/.bin/esbuild'), [
    join(ROOT, 'e2e/engraving/page.ts'),
    '--bundle',
    '--format=iife',
    `--alias:@=${join(ROOT, 'src')}`,
    `--outfile=${script}`,
    '--log-level=error',
  ]);
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu'],
  });
  const page = await browser.newPage();
  const font = readFileSync(join(ROOT, WORDS)).toString('base64');
  await page.setContent(
    `<style>@font-face { font-family: Words; font-weight: bold; src: url(data:font/ttf;base64,${font}) }</style><div id="music"></div>`,
  );
  await page.addScriptTag({ path: script });
  await page.evaluate(() =>
    Promise.all(['bold 20px Words', '30px Bravura'].map((font) => document.fonts.load(font))),
  );
  return {
    draw: (family, instrument, paper) =>
      page.evaluate(([...args]) => (globalThis as unknown as { draw: Draw }).draw(...args), [
        family,
        instrument,
        paper,
      ] as const),
    close: () => browser.close(),
  };
}
