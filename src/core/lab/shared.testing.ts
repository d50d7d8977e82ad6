import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import type { Sounded, Take } from '@/core/take';
import type { Performance } from './perform';
import { soundedBy, takeBy, type SimulatedTake } from './simulateTake';

/**
 * Of the sources that the running program was made of, those that decide what sounds and those that decide what is heard in it: the
 * test runner or bundler says it, as the folder may have changed since.
 */
declare const STAMPS: { readonly sounded: string; readonly takes: string };
const FOLDER = join(process.cwd(), 'build', 'takes');

interface Truth {
  readonly performance: Omit<Performance, 'audio'>;
}
type Shared = Truth & { readonly take: Take };
type Options = Omit<SimulatedTake, 'room' | 'onLastSample'>;

/** What was made before, of the same, or is made now and kept. */
function kept<T>(
  file: string,
  pack: (made: T) => Buffer | string,
  unpack: (packed: Buffer) => T,
  make: () => T,
): T {
  if (existsSync(file)) return unpack(readFileSync(file));
  const made = make();
  mkdirSync(dirname(file), { recursive: true });
  // Two that make the same at once must not read each other's half.
  const mine = `${file}.${process.pid}`;
  writeFileSync(mine, pack(made));
  renameSync(mine, file);
  return made;
}

/**
 * For tests and the bench: a simulated take without its sound. The same take is played once and heard once, whoever asks for it, as
 * long as nothing changes that it depends on: a change of how notes are told apart plays nothing again.
 */
export function sharedTake(options: Options): Shared {
  const name = createHash('sha1').update(JSON.stringify(options)).digest('hex');
  return kept<Shared>(
    join(FOLDER, STAMPS.takes, `${name}.json`),
    (shared) => JSON.stringify(shared),
    (packed) => JSON.parse(packed.toString()) as Shared,
    () => {
      const { sounded, performance } = sharedSound(name, options);
      // As it is read the next time.
      return JSON.parse(JSON.stringify({ take: takeBy(options, sounded).take, performance })) as Shared;
    },
  );
}

const sharedSound = (name: string, options: Options) =>
  kept<Truth & { sounded: Sounded }>(
    join(FOLDER, STAMPS.sounded, name),
    serialize,
    (packed) => deserialize(packed) as Truth & { sounded: Sounded },
    () => {
      const { sounded, performance } = soundedBy(options);
      const { notes, events, sampleRate } = performance;
      return { sounded, performance: { notes, events, sampleRate } };
    },
  );
