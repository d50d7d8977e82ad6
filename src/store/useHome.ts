import useSWR from 'swr';
import type { Home } from './home';
import { home, LOCAL } from './opened';

/** The open log. */
export function useHome() {
  return useSWR<Home, Error>('home', home, LOCAL);
}
