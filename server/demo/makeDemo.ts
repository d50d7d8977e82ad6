import { findInstrument } from '@/core/instruments';
import { simulateTake } from '@/core/lab';
import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Random } from '@/core/base';
import { findFamily } from '@/core/music';
import { digestOf } from '@/core/ledger';
import { storedOf, type Take } from '@/core/take';
import { limitsOf } from '@/core/verdict';
import { noteNumber } from '@/core/tuning';
import { BLOCKS, dayOf, STORY, type Block } from './story';

const WEEKS = 8;
const DAYS_A_WEEK = 3;
/** Sound is shipped with the newest takes only, to keep the demo light. */
const WITH_SOUND = 4;

/** Plays a block as it was played that day, and measures it as the stand does. */
function played(id: string, when: Date, seed: number, block: Omit<Block, 'daysAgo'>) {
  const made = findFamily(block.family)?.make(findInstrument(block.instrumentId)!, block.values);
  if (!made?.ok) throw new Error(made?.problem ?? `no family ${block.family}`);
  const { take, heard } = simulateTake({
    id,
    when,
    score: made.value,
    player: block.player,
    faults: block.faults,
    seed,
    tailSeconds: 0.8,
    // Every third day is practised at home.
    ...(seed % 3 === 1 && { heardIn: { room: 'living' as const, place: seed % 5 } }),
    setup: { temperatureC: 20, warmth: 'warm', room: seed % 3 === 1 ? 'the parlour' : 'the mill loft' },
    school: 'air',
  });
  return { take: { ...take, remark: block.remark }, audio: heard.audio };
}

/** A take as it is shipped: with its sound or without. */
function shipped({ take, audio }: { take: Take; audio: Int16Array<ArrayBuffer> }, withSound: boolean) {
  const kept: Take = withSound ? take : { ...take, audio: null };
  return {
    stored: storedOf(kept),
    ...digestOf(kept, limitsOf('steady'), 'english'),
    sound: withSound ? audio : null,
  };
}

async function main(): Promise<void> {
  const target = process.argv[2];
  if (!target) throw new Error('say where to write the demo');
  const days = WEEKS * DAYS_A_WEEK;
  const random = new Random(20);
  const newest = new Date();
  newest.setHours(18, 40, 0, 0);
  const longTones = Array.from({ length: days }, (_, i) => {
    const ago = Math.round(((days - 1 - i) * 7) / DAYS_A_WEEK) + 1;
    const when = new Date(newest.getTime() - ago * 86_400_000 + (i % 4) * 11 * 60_000);
    const { note, ...day } = dayOf(i, days, random);
    const block = { ...day, family: 'long-tone', values: { note: noteNumber(note) }, faults: {} };
    const id = `demo-${String(i).padStart(3, '0')}`;
    return shipped(played(id, when, 1000 + i, block), i >= days - WITH_SOUND);
  });
  const blocks = BLOCKS.map((block, i) => {
    const when = new Date(newest.getTime() - block.daysAgo * 86_400_000 + 17 * 60_000);
    const id = `demo-block-${String(i).padStart(2, '0')}`;
    // The first and the last of the octaves can be heard beside each other.
    return shipped(played(id, when, 2000 + i, block), block.family === 'octave-slurs');
  });
  const all = [...longTones, ...blocks];
  const takes = all.map(({ stored, entry, cells }) => ({ stored, entry, cells }));
  const edition = createHash('sha1').update(JSON.stringify(takes)).digest('hex').slice(0, 12);
  await mkdir(join(target, 'sound'), { recursive: true });
  await writeFile(
    join(target, 'demo.json'),
    JSON.stringify({ schema: 'gold-reed/demo@4', edition, story: STORY, takes }),
  );
  for (const { entry, sound } of all)
    if (sound) await writeFile(join(target, 'sound', `${entry.id}.pcm`), new Uint8Array(sound.buffer));
  console.log(`demo: ${takes.length} takes`);
}

void main();
