/** Who waits for what, where the browser has no locks: an insecure address. */
const queues = new Map<string, Promise<unknown>>();

/**
 * Does the work while nobody else, in this tab or another, does work of the same name: what is read in it is still so when it
 * writes. Where the browser has no locks (a page that came without https) only this tab is kept in order.
 */
export function exclusively<T>(name: string, work: () => Promise<T>): Promise<T> {
  if (typeof navigator !== 'undefined' && 'locks' in navigator)
    return navigator.locks.request(name, work) as Promise<T>;
  const done = (queues.get(name) ?? Promise.resolve()).then(work, work);
  queues.set(
    name,
    done.catch(() => undefined),
  );
  return done;
}
