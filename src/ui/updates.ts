import { useEffect, useState } from 'react';

/** Registration waits until the first page has been shown: keeping the app is not what the player came for. */
const SETTLED_MS = 3000;
/** A page that stays open for days looks for a newer app so often. */
const LOOK_AGAIN_MS = 60 * 60_000;

/**
 * Keeps the app on this device (where there is no network it opens all the same), and finds out when there is a newer one.
 * @returns a way to change to the newer one, which reloads the page; null: there is none.
 */
export function useUpdate(): (() => void) | null {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    let looking: ReturnType<typeof setInterval> | undefined;
    const later = setTimeout(() => {
      navigator.serviceWorker.register('/sw.js').then(
        (registration) => {
          const look = () => setWaiting(navigator.serviceWorker.controller ? registration.waiting : null);
          look();
          registration.addEventListener('updatefound', () => {
            registration.installing?.addEventListener('statechange', look);
          });
          // Where there is no network it is looked for another time.
          looking = setInterval(() => void registration.update().catch(() => undefined), LOOK_AGAIN_MS);
        },
        // Without it the app needs the network, and is otherwise the same: an address without https, a private window.
        () => undefined,
      );
    }, SETTLED_MS);
    return () => {
      clearTimeout(later);
      clearInterval(looking);
    };
  }, []);
  if (!waiting) return null;
  return () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
      once: true,
    });
    waiting.postMessage({ type: 'SKIP_WAITING' });
  };
}

/** Under which it is remembered what app a page was loaded anew for. */
const MENDED = 'loaded-anew-for';
/** What is played there is not in the log yet. */
const PLAYING = /^\/(stand|session)/;

/** Script of a page that all others are asked for by. */
const entryIn = (page: Document): string | null =>
  page.querySelector('script[src*="/entry-"]')?.getAttribute('src') ?? null;

/**
 * A part of the app did not come. Where that is because the server has a newer app and nothing keeps this one's parts, the page is
 * loaded anew: once for each, and never while something is played.
 * @returns whether it is being loaded anew.
 */
export async function mendedByLoadingAnew(): Promise<boolean> {
  const isKept = 'serviceWorker' in navigator && navigator.serviceWorker.controller !== null;
  if (isKept || PLAYING.test(window.location.pathname) || sessionStorage.getItem(MENDED) !== null)
    return false;
  const served = await fetch('/', { cache: 'no-store' }).then(
    (response) => response.text(),
    () => null,
  );
  if (served === null) return false;
  const newest = entryIn(new DOMParser().parseFromString(served, 'text/html'));
  if (newest === null || newest === entryIn(document) || newest === sessionStorage.getItem(MENDED))
    return false;
  sessionStorage.setItem(MENDED, newest);
  window.location.reload();
  return true;
}
