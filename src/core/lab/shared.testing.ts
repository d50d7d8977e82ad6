import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Take } from '@/core/take';
import type { Performance } from './perform';
import { simulateTake, type SimulatedTake } from './simulateTake';

/** What a take depends on; a change in any of it makes every take anew. */
const ROOMS = ['base', 'tuning', 'instruments', 'music', 'hearing', 'take', 'lab'];
const FOLDER = join(process.cwd(), 'build', 'takes');

type Shared = { readonly take: Take; readonly performance: Omit<Performance, 'audio'> };
type Options = Omit<SimulatedTake, 'room' | 'onLastSample'>;

function* filesIn(path: string): Generator<string> {
  if (!statSync(path).isDirectory()) yield path;
  else
    for (const name of readdirSync(path).sort())
      if (!/\.test\.tsx?$/.test(name)) yield* filesIn(join(path, name));
}

let stamp: string | null = null;
function stampOfSources(): string {
  const hash = createHash('sha1');
  for (const room of ROOMS)
    for (const file of filesIn(join(process.cwd(), 'src', 'core', room))) hash.update(readFileSync(file));
  return (stamp ??= hash.digest('hex').slice(0, 12));
}

/**
 * For tests and the bench: a simulated take without its sound. The same take is played and heard once, whoever asks for it, as
 * long as nothing changes that it depends on.
 */
export function sharedTake(options: Options): Shared {
  const folder = join(FOLDER, stamp ?? stampOfSources());
  const file = join(folder, `${createHash('sha1').update(JSON.stringify(options)).digest('hex')}.json`);
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as Shared;
  const { take, performance } = simulateTake(options);
  const shared: Shared = {
    take,
    performance: { notes: performance.notes, events: performance.events, sampleRate: performance.sampleRate },
  };
  mkdirSync(folder, { recursive: true });
  // Two that play the same at once must not read each other's half.
  const mine = `${file}.${process.pid}`;
  writeFileSync(mine, JSON.stringify(shared));
  renameSync(mine, file);
  return JSON.parse(JSON.stringify(shared)) as Shared;
}
