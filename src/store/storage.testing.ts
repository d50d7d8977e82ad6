import { StorageProblem, type Storage } from './storage';
import type { Tab } from './tab';

/** For tests: a storage in memory. */
export class MapStorage implements Storage {
  constructor(readonly map = new Map<string, string>()) {}
  getItem = (key: string) => Promise.resolve(this.map.get(key) ?? null);
  setItem = (key: string, value: string): Promise<void> => Promise.resolve(void this.map.set(key, value));
  removeItem = (key: string): Promise<void> => Promise.resolve(void this.map.delete(key));
  getMany = (keys: string[]) =>
    Promise.resolve(Object.fromEntries(keys.map((key) => [key, this.map.get(key) ?? null])));
  setMany = (entries: Record<string, string>): Promise<void> =>
    Promise.resolve(Object.entries(entries).forEach(([k, v]) => this.map.set(k, v)));
  removeMany = (keys: string[]): Promise<void> =>
    Promise.resolve(keys.forEach((key) => this.map.delete(key)));
  getAllKeys = () => Promise.resolve([...this.map.keys()]);
}

/** For tests: what a page that was killed reads and writes: so many writes happen, and then nothing any more, not even a failure. */
export class DyingStorage extends MapStorage {
  constructor(
    map: Map<string, string>,
    private left: number,
  ) {
    super(map);
    const { setItem, setMany, removeItem, removeMany } = this;
    this.setItem = (key, value) => this.alive(() => setItem(key, value));
    this.setMany = (entries) => this.alive(() => setMany(entries));
    this.removeItem = (key) => this.alive(() => removeItem(key));
    this.removeMany = (keys) => this.alive(() => removeMany(keys));
  }

  private alive(write: () => Promise<void>): Promise<void> {
    return this.left-- > 0 ? write() : Promise.reject(new Killed());
  }
}

/** For tests: a device that has room for so many writes more; what is removed makes room. */
export class FullStorage extends MapStorage {
  constructor(
    map: Map<string, string>,
    private room: number,
  ) {
    super(map);
    const { setItem, setMany, removeMany } = this;
    this.setItem = (key, value) => this.roomFor([key], () => setItem(key, value));
    this.setMany = (entries) => this.roomFor(Object.keys(entries), () => setMany(entries));
    this.removeMany = (keys) => {
      this.room += keys.filter((key) => map.has(key)).length;
      return removeMany(keys);
    };
  }

  /** What is written over takes no more room. */
  private roomFor(keys: readonly string[], write: () => Promise<void>): Promise<void> {
    const fresh = keys.filter((key) => !this.map.has(key)).length;
    if (fresh > this.room) return Promise.reject(new StorageProblem('This device has no room left.'));
    this.room -= fresh;
    return write();
  }
}

/** The page was closed, crashed, or its process was killed. */
export class Killed extends Error {}

/** For tests: tabs, each open until it is closed. */
export function tabs() {
  const open = new Set<string>();
  return {
    open: (id: string): Tab => {
      open.add(id);
      return { id, open: () => Promise.resolve(new Set(open)) };
    },
    close: (id: string) => void open.delete(id),
  };
}
