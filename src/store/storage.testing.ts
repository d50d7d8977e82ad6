import type { Storage } from './storage';

/** For tests: a storage in memory. */
export class MapStorage implements Storage {
  readonly map = new Map<string, string>();
  getItem = (key: string) => Promise.resolve(this.map.get(key) ?? null);
  setItem = (key: string, value: string) => Promise.resolve(void this.map.set(key, value));
  removeItem = (key: string) => Promise.resolve(void this.map.delete(key));
  getMany = (keys: string[]) =>
    Promise.resolve(Object.fromEntries(keys.map((key) => [key, this.map.get(key) ?? null])));
  setMany = (entries: Record<string, string>) =>
    Promise.resolve(Object.entries(entries).forEach(([k, v]) => this.map.set(k, v)));
  removeMany = (keys: string[]) => Promise.resolve(keys.forEach((key) => this.map.delete(key)));
  getAllKeys = () => Promise.resolve([...this.map.keys()]);
}
