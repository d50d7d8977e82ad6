/** The app's letters, as the browser wants them: only those that its words have, packed as WOFF2, with the licence they come under. */
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import subsetFont from 'subset-font';
import { root } from './ensure.mjs';

const FACES = {
  AlegreyaSans_400Regular: 'alegreya-sans/400Regular',
  AlegreyaSans_500Medium: 'alegreya-sans/500Medium',
  AlegreyaSans_700Bold: 'alegreya-sans/700Bold',
  YoungSerif_400Regular: 'young-serif/400Regular',
};
/** Latin letters, punctuation, arrows, signs of arithmetic and of music (Unicode blocks, first and last). */
const BLOCKS = [
  [0x20, 0x24f],
  [0x2b0, 0x36f],
  [0x2000, 0x22ff],
  [0x25a0, 0x26ff],
];
const LETTERS = BLOCKS.flatMap(([first, last]) =>
  Array.from({ length: last - first + 1 }, (_, i) => String.fromCodePoint(first + i)),
).join('');

const packageOf = (folder) => join(root, 'node_modules', '@expo-google-fonts', folder);

/** Writes them into a built app and names them in its page, where they are asked for before any script. */
export async function writeFonts(dist) {
  const folder = join(dist, 'fonts');
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const faces = await Promise.all(
    Object.entries(FACES).map(async ([face, path]) => {
      const whole = readFileSync(join(packageOf(path), `${face}.ttf`));
      const letters = await subsetFont(whole, LETTERS, { targetFormat: 'woff2' });
      const name = `${face}.${createHash('md5').update(letters).digest('hex')}.woff2`;
      writeFileSync(join(folder, name), letters);
      return { face, url: `/fonts/${name}` };
    }),
  );
  const page = join(dist, 'index.html');
  const preloads = faces.map(
    ({ url }) => `<link rel="preload" href="${url}" as="font" type="font/woff2" crossorigin />`,
  );
  const rules = faces.map(
    ({ face, url }) => `@font-face{font-family:${face};src:url(${url}) format("woff2");font-display:swap}`,
  );
  const html = readFileSync(page, 'utf8');
  writeFileSync(
    page,
    html.replace('<style id="faces"></style>', `${preloads.join('')}<style>${rules.join('')}</style>`),
  );
}

/** Words that a licence's file goes by. */
const LICENCE = /^(licen[cs]e|copying|ofl)(\.|_|$)/i;

/** What the app is made of, with the licences that it comes under, in one file that ships with it. */
export function writeLicences(dist) {
  const { dependencies } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
  const texts = Object.keys(dependencies)
    .sort()
    .map((name) => {
      const folder = join(root, 'node_modules', name);
      const { version, license } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
      const files = readdirSync(folder).filter((each) => LICENCE.test(each));
      const own = files.map((file) => readFileSync(join(folder, file), 'utf8').trim());
      return [`${name} ${version}: ${license}`, ...own].join('\n\n');
    });
  writeFileSync(join(dist, 'licences.txt'), `${texts.join('\n\n――――――――\n\n')}\n`);
}
