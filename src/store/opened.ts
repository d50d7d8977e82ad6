import useSWR, { mutate, SWRConfig, unstable_serialize, type SWRResponse } from 'swr';
import { Changes, PARTS, type Part } from './changes';
import { chooseHome, openHome, type Home, type Whose } from './home';

/** What is read once stays until it is told to have changed. */
export const LOCAL = { revalidateOnFocus: false, revalidateOnReconnect: false } as const;

/** Key of what is read of a part of the store. */
export const data = (part: Part, ...which: readonly (string | number)[]) => ['data', part, ...which] as const;

/** Something that is stored: what it is known by, and how it is read. */
export interface Stored<T> {
  readonly key: readonly (string | number)[];
  readonly read: () => Promise<T>;
  /** Whether what was read again is what is known; deep equality where it is not said. */
  readonly isSame?: (known: T | undefined, read: T | undefined) => boolean;
}

/** @param keeps what was shown stays until what is asked for now has been read. */
export const useStored = <T>({ key, read, isSame }: Stored<T>, keeps = false): SWRResponse<T, Error> =>
  useSWR<T, Error>(key, read, { ...LOCAL, keepPreviousData: keeps, ...(isSame && { compare: isSame }) });

/**
 * Reads it before a page asks for it, which then shows it at once. What is known already is left alone: a page may be changing it
 * just now, and hears of its changes by itself.
 */
export async function readAheadOf<T>({ key, read }: Stored<T>): Promise<T | undefined> {
  const known = SWRConfig.defaultValue.cache.get(unstable_serialize(key))?.data as T | undefined;
  return known === undefined ? mutate<T>(key, read(), { revalidate: false }) : known;
}

/** Of what is looked at one by one, so many stay known: a long day's takes would fill a phone. */
const MOST_LOOKED_AT = 20;
/** The latest last. */
const lookedAt = new Map<string, readonly (string | number)[]>();

/** Says that this is on a page now; what was looked at long before is forgotten, and read again where it is asked for. */
export function lookingAt(key: readonly (string | number)[]): void {
  const name = unstable_serialize(key);
  lookedAt.delete(name);
  lookedAt.set(name, key);
  for (const [oldest, old] of lookedAt) {
    if (lookedAt.size <= MOST_LOOKED_AT) return;
    lookedAt.delete(oldest);
    void mutate(old, undefined, { revalidate: false });
  }
}

/** The open log; everything else is read through it. */
let opening: Promise<Home> | null = null;
let openName: string | null = null;
const changes = new Changes();
changes.hear(
  () => openName,
  (parts) => void readAgain(parts),
);

export function home(): Promise<Home> {
  opening ??= openHome().then(
    (opened) => {
      openName = opened.name;
      return opened;
    },
    (problem: unknown) => {
      // What failed once may go well the next time that it is asked for.
      opening = null;
      throw problem;
    },
  );
  return opening;
}

/** Has read again what was read of these parts, here and in the other tabs. */
export async function changed(...parts: readonly Part[]): Promise<void> {
  changes.tell((await home()).name, parts);
  await readAgain(parts);
}

async function readAgain(parts: readonly Part[]): Promise<void> {
  await mutate(
    (key) => Array.isArray(key) && key[0] === 'data' && parts.some((part) => part === (key[1] as Part)),
  );
}

export async function changeHome(whose: Whose): Promise<void> {
  await chooseHome(whose);
  opening = null;
  await mutate(() => true, undefined, { revalidate: true });
  await readAgain(PARTS);
}
