import { instruments } from '@/core/instruments';
import { families } from '@/core/music';
import { openGallery, PAPERS } from './gallery';

/** Every family on some of the instruments, another few for each; `npm run bench -- engraving` draws them all. */
const EVERY = 23;

it('draws no exercise in which signs, words, slurs or stems run into each other', async () => {
  const gallery = await openGallery();
  const wrong: string[] = [];
  let drawn = 0;
  try {
    for (const [f, family] of families.entries())
      for (const [i, instrument] of instruments.entries()) {
        if ((f + i) % EVERY !== 0) continue;
        for (const [name, paper] of Object.entries(PAPERS)) {
          const found = await gallery.draw(family.id, instrument.id, paper);
          if (found) drawn++;
          wrong.push(...(found ?? []).map((each) => `${family.id} ${instrument.id} ${name} ${each}`));
        }
      }
  } finally {
    await gallery.close();
  }
  expect(wrong).toEqual([]);
  expect(drawn).toBeGreaterThan(100);
});
