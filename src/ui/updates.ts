import { useEffect, useState } from 'react';

/** Registration waits until the first page has been shown: keeping the app is not what the player came for. */
const SETTLED_MS = 3000;

/**
 * Keeps the app on this device (where there is no network it opens all the same), and finds out when there is a newer one.
 * @returns a way to change to the newer one, which reloads the page; null: there is none.
 */
export function useUpdate(): (() => void) | null {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    const later = setTimeout(() => {
      navigator.serviceWorker.register('/sw.js').then(
        (registration) => {
          const look = () => setWaiting(navigator.serviceWorker.controller ? registration.waiting : null);
          look();
          registration.addEventListener('updatefound', () => {
            registration.installing?.addEventListener('statechange', look);
          });
        },
        // Without it the app needs the network, and is otherwise the same: an address without https, a private window.
        () => undefined,
      );
    }, SETTLED_MS);
    return () => clearTimeout(later);
  }, []);
  if (!waiting) return null;
  return () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), {
      once: true,
    });
    waiting.postMessage({ type: 'SKIP_WAITING' });
  };
}
