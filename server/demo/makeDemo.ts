import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { DAY_MS, MINUTE_MS, Random } from '@/core/base';
import { noteNumber } from '@/core/tuning';
import type { PlayJob, Shipped } from './playThread';
import { coldLeanings, minuteOf, sittingOf, usualLeanings } from './sittings';
import { BLOCKS, dayOf, STORY } from './story';

const WEEKS = 8;
const DAYS_A_WEEK = 3;
const DAYS = WEEKS * DAYS_A_WEEK;
/** Sound is shipped with the newest takes only, to keep the demo light. */
const WITH_SOUND = 4;
/** Enough for what is measured of short drills, and quicker to play. */
const DRILL_RATE = 24_000;

const number = (i: number, digits: number) => String(i).padStart(digits, '0');
/** Every fifth day is practised at home. */
const setupOf = (day: number) => {
  const atHome = day % 5 === 2;
  return { atHome, room: atHome ? 'the parlour' : 'the mill loft' };
};

/** A long tone on each practice day, and what was played after it. */
function practiceDay(i: number, newest: Date, random: Random): PlayJob[] {
  const ago = Math.round(((DAYS - 1 - i) * 7) / DAYS_A_WEEK) + 1;
  const began = newest.getTime() - ago * DAY_MS + (i % 4) * 11 * MINUTE_MS;
  const { note, worn, instrumentId, player, remark } = dayOf(i, DAYS, random);
  const { atHome, room } = setupOf(1000 + i);
  const exercises = sittingOf(instrumentId, i, DAYS, worn, random);
  const shared = { instrumentId, atHome };
  const { slideMm, temperatureC, reed } = exercises[0]!;
  const longTone: PlayJob = {
    ...shared,
    id: `demo-${number(i, 3)}`,
    when: new Date(began).toISOString(),
    seed: 1000 + i,
    family: 'long-tone',
    values: { note: noteNumber(note) },
    player: { ...player, leanings: coldLeanings(instrumentId) },
    faults: {},
    setup: { slideMm, temperatureC, reed, room, warmth: 'cold' },
    remark,
    withSound: i >= DAYS - WITH_SOUND,
  };
  return [
    longTone,
    ...exercises.map((exercise, k): PlayJob => {
      const warmth = minuteOf(k) < 10 ? 'warming' : 'warm';
      return {
        ...shared,
        id: `demo-${number(i, 3)}-${k + 1}`,
        when: new Date(began + minuteOf(k) * MINUTE_MS).toISOString(),
        seed: 3000 + 10 * i + k,
        family: exercise.family,
        values: exercise.values,
        player: exercise.player,
        faults: exercise.faults,
        setup: { slideMm, temperatureC, reed, room, warmth },
        remark: '',
        withSound: false,
        sampleRate: DRILL_RATE,
      };
    }),
  ];
}

/** Blocks of other exercises that have a remark of their own. */
function extraBlock(i: number, newest: Date): PlayJob {
  const { daysAgo, ...block } = BLOCKS[i]!;
  const { atHome, room } = setupOf(2000 + i);
  return {
    ...block,
    player: { ...block.player, leanings: usualLeanings(block.instrumentId) },
    id: `demo-block-${number(i, 2)}`,
    when: new Date(newest.getTime() - daysAgo * DAY_MS + 47 * MINUTE_MS).toISOString(),
    seed: 2000 + i,
    setup: { temperatureC: 20, room, warmth: 'warm' },
    atHome,
    // The first and the last of the octaves can be heard beside each other.
    withSound: block.family === 'octave-slurs',
  };
}

async function main(): Promise<void> {
  const target = process.argv[2];
  if (!target) throw new Error('say where to write the demo');
  const random = new Random(20);
  const newest = new Date();
  newest.setHours(18, 40, 0, 0);
  const jobs = [
    ...Array.from({ length: DAYS }, (_, i) => practiceDay(i, newest, random)).flat(),
    ...BLOCKS.map((_, i) => extraBlock(i, newest)),
  ];
  const pool = new Piscina<PlayJob, Shipped>({
    filename: join(__dirname, 'playThread.js'),
    maxThreads: availableParallelism(),
  });
  const all = await Promise.all(jobs.map((job) => pool.run(job)));
  await pool.destroy();
  const rows = all.map(({ entry, cells }) => ({ entry, cells }));
  const takes = all.map(({ entry: { id }, stored }) => ({ id, stored }));
  const edition = createHash('sha1')
    .update(JSON.stringify([rows, takes]))
    .digest('hex')
    .slice(0, 12);
  await mkdir(join(target, 'sound'), { recursive: true });
  // What pages show first, and what is looked at one by one.
  for (const [name, content] of [
    ['demo.json', { schema: 'gold-reed/demo@5', edition, story: STORY, rows }],
    ['takes.json', { schema: 'gold-reed/demo-takes@1', edition, takes }],
    ['edition.json', { edition }],
  ] as const)
    await writeFile(join(target, name), JSON.stringify(content));
  for (const { entry, sound } of all)
    if (sound) await writeFile(join(target, 'sound', `${entry.id}.pcm`), new Uint8Array(sound.buffer));
  console.log(`demo: ${takes.length} takes`);
}

void main();
