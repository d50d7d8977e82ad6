import { createContext, useCallback, useContext, type ReactNode } from 'react';
import type { Midi } from '@/core/base';
import { displayName, type Naming } from '@/core/tuning';

const NamingContext = createContext<Naming>('english');

/** How the player calls notes, for everything below. */
export function NamingProvider({ naming, children }: { naming: Naming; children: ReactNode }) {
  return <NamingContext.Provider value={naming}>{children}</NamingContext.Provider>;
}

export const useNaming = (): Naming => useContext(NamingContext);

/** Names a note as the player does. */
export function useNoteName(): (midi: Midi) => string {
  const naming = useNaming();
  return useCallback((midi) => displayName(midi, naming), [naming]);
}
