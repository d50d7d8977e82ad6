import { mkdirSync, writeFileSync } from 'node:fs';
import { instruments } from '@/core/instruments';
import { faultless, FIVE, oneFault } from '@/core/verdict/truth.testing';

/** `npm run bench -- truth`: the tables, and every sentence of them in a file that can be read through. */
export function truthTables(full: boolean): void {
  const chosen = full ? instruments : instruments.filter(({ id }) => FIVE.includes(id));
  const clean = faultless(chosen);
  console.log(`faultless: ${clean.judged - clean.rows.length} of ${clean.judged} without a fault`);
  for (const { family, instrument, level, wrong } of clean.rows)
    console.log(`  ${family} ${instrument} ${level}: ${wrong.join('; ')}`);
  const planted = oneFault(full ? 3 : 1);
  console.log(`one fault: ${planted.right} of ${planted.judged} told as it was, and nothing else`);
  for (const line of planted.wrong) console.log(`  ${line}`);
  mkdirSync('build', { recursive: true });
  writeFileSync('build/sentences.txt', [...clean.sentences, ...planted.sentences].join('\n'));
  console.log('every sentence: build/sentences.txt');
}
