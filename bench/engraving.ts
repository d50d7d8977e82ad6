import { openGallery, PAPERS } from '../e2e/gallery';
import { flag } from './flags';
import { instruments } from '@/core/instruments';
import { families } from '@/core/music';

/** Every family's default music for every instrument, drawn on a phone, a wide screen and a sheet: what runs into what; `--paper=sheet` draws one of the three. */
export async function collisions() {
  const only = flag('paper');
  const gallery = await openGallery();
  try {
    const rows = [];
    for (const [name, paper] of Object.entries(PAPERS)) {
      if (only && name !== only) continue;
      let [scores, touched] = [0, 0];
      for (const family of families)
        for (const instrument of instruments) {
          const found = await gallery.draw(family.id, instrument.id, paper);
          if (!found) continue;
          scores++;
          if (found.length > 0) touched++;
          for (const each of found) console.log(`  ${family.id} ${instrument.id} ${name} ${each}`);
        }
      rows.push({ paper: name, scores, 'with collisions': touched });
    }
    return rows;
  } finally {
    await gallery.close();
  }
}
