/** The few calls of AsyncStorage that the store stands on; a map in memory serves in tests. */
export interface Storage {
  getItem(key: string): Promise<string | null>;
  setItem(key: string, value: string): Promise<void>;
  removeItem(key: string): Promise<void>;
  getMany(keys: string[]): Promise<Record<string, string | null>>;
  /** One transaction: all of them are written, or none. */
  setMany(entries: Record<string, string>): Promise<void>;
  removeMany(keys: string[]): Promise<void>;
  getAllKeys(): Promise<string[]>;
}

/** What one change writes, all of it or nothing. */
export type Writes = Record<string, string>;

/** The device could not take or give what was asked; the message is for the player. */
export class StorageProblem extends Error {
  override readonly name = 'StorageProblem';
}

const FULL = /quota|full|space/i;

/** A storage whose failures are told in plain words. Nothing is lost by them: a write happens as a whole or not at all. */
export function toldPlainly(storage: Storage): Storage {
  const reading = <T>(asked: Promise<T>) =>
    asked.catch((error: unknown) => {
      throw new StorageProblem(`What is stored on this device could not be read (${wordsOf(error)}).`);
    });
  const writing = <T>(asked: Promise<T>) =>
    asked.catch((error: unknown) => {
      throw new StorageProblem(
        FULL.test(wordsOf(error))
          ? 'This device has no room left, so nothing was changed. Make room on it, then try again.'
          : `This device could not store it, and nothing was changed (${wordsOf(error)}). Try again.`,
      );
    });
  return {
    getItem: (key) => reading(storage.getItem(key)),
    getMany: (keys) => reading(storage.getMany(keys)),
    getAllKeys: () => reading(storage.getAllKeys()),
    setItem: (key, value) => writing(storage.setItem(key, value)),
    setMany: (entries) => writing(storage.setMany(entries)),
    removeItem: (key) => writing(storage.removeItem(key)),
    removeMany: (keys) => writing(storage.removeMany(keys)),
  };
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
