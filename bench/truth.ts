import { mkdirSync, writeFileSync } from 'node:fs';
import { instruments } from '@/core/instruments';
import { faultless, FIVE, oneFault, PLANTED } from '@/core/verdict/truth.testing';
import { flag } from './flags';

/**
 * `npm run bench -- truth`: the tables, and every sentence of them in a file that can be read through.
 * `--only=oboe,flute` looks at these instruments alone, `--planted=holes` puts in this fault alone.
 */
export function truthTables(full: boolean): void {
  const only = flag('only')?.split(',') ?? (full ? instruments.map(({ id }) => id) : FIVE);
  const clean = faultless(instruments.filter(({ id }) => only.includes(id)));
  console.log(`faultless: ${clean.judged - clean.rows.length} of ${clean.judged} without a fault`);
  for (const { family, instrument, level, wrong } of clean.rows)
    console.log(`  ${family} ${instrument} ${level}: ${wrong.join('; ')}`);
  const kind = flag('planted');
  const planted = oneFault(
    full ? 3 : 1,
    PLANTED.filter(({ name }) => kind === undefined || name === kind),
    FIVE.filter((id) => only.includes(id)),
  );
  console.log(`one fault: ${planted.right} of ${planted.judged} told as it was, and nothing else`);
  for (const line of planted.wrong) console.log(`  ${line}`);
  mkdirSync('build', { recursive: true });
  writeFileSync('build/sentences.txt', [...clean.sentences, ...planted.sentences].join('\n'));
  console.log('every sentence: build/sentences.txt');
}
