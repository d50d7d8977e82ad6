import { useEffect, useState } from 'react';
import useSWR from 'swr';
import type { Home } from './home';
import { home, LOCAL } from './opened';

/** A log of 3,000 takes opens in a tenth of this on a slow phone. */
const SLOW_MS = 8000;

/** The open log. */
export function useHome() {
  return useSWR<Home, Error>('home', home, LOCAL);
}

/** @returns whether the log has been waited for so long that something must be holding it. */
export function useSlowOpening(isOpen: boolean): boolean {
  const [waited, setWaited] = useState(false);
  useEffect(() => {
    if (isOpen) return;
    const patience = setTimeout(() => setWaited(true), SLOW_MS);
    return () => clearTimeout(patience);
  }, [isOpen]);
  return waited && !isOpen;
}
