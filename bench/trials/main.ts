import { flag } from '../flags';
import { exporting } from './exporting';
import { kills } from './kills';
import { longDay } from './longDay';
import { releasing } from './releases';
import { twoTabs } from './twoTabs';

const option = (name: string, otherwise: number) => Number(flag(name) ?? otherwise);

/** `npm run trials -- --kills=200 --tabs=50 --day=100 --export=3000 --releases=20 --seed=1`: what may happen to a log, at random moments; ends with what was lost. */
async function main(): Promise<void> {
  const seed = option('seed', 1);
  const { deaths, wrong: amiss, ...killed } = await kills(option('kills', 12), seed);
  console.table([deaths]);
  console.table([killed]);
  for (const each of amiss) console.log(each);
  const { tally, wrong } = await twoTabs(option('tabs', 5), seed);
  console.table([tally]);
  for (const each of wrong) console.log(each);
  const day = await longDay(option('day', 20));
  console.table([day]);
  const released = await releasing(option('releases', 5), seed);
  console.table([{ ...released.tally, kept: released.kept }]);
  for (const each of released.wrong) console.log(each);
  if (released.wrong.length > 0) process.exitCode = 1;
  const out = await exporting(option('export', 200));
  console.table([out]);
  if (!day.flat || !out.within) process.exitCode = 1;
  if (killed.torn + amiss.length + wrong.length > 0) process.exitCode = 1;
}

void main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
