import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Take } from '@/core/take';
import type { Performance } from './perform';
import { simulateTake, type SimulatedTake } from './simulateTake';

/** Of the sources that the running program was made of: its test runner or bundler says it, as the folder may have changed since. */
declare const TAKES_STAMP: string;
const FOLDER = join(process.cwd(), 'build', 'takes', TAKES_STAMP);

type Shared = { readonly take: Take; readonly performance: Omit<Performance, 'audio'> };
type Options = Omit<SimulatedTake, 'room' | 'onLastSample'>;

/**
 * For tests and the bench: a simulated take without its sound. The same take is played and heard once, whoever asks for it, as
 * long as nothing changes that it depends on.
 */
export function sharedTake(options: Options): Shared {
  const file = join(FOLDER, `${createHash('sha1').update(JSON.stringify(options)).digest('hex')}.json`);
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as Shared;
  const { take, performance } = simulateTake(options);
  const shared: Shared = {
    take,
    performance: { notes: performance.notes, events: performance.events, sampleRate: performance.sampleRate },
  };
  mkdirSync(FOLDER, { recursive: true });
  // Two that play the same at once must not read each other's half.
  const mine = `${file}.${process.pid}`;
  writeFileSync(mine, JSON.stringify(shared));
  renameSync(mine, file);
  return JSON.parse(JSON.stringify(shared)) as Shared;
}
