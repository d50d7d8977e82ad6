import { useEffect, useState, useSyncExternalStore } from 'react';
import { StandEngine, type StandOptions } from './standEngine';
import type { StandState } from './standState';

/** The engine of one block for as long as the screen lasts, and what is to be seen of it. */
export function useStand(options: StandOptions): { engine: StandEngine; state: StandState } {
  const [engine] = useState(() => new StandEngine(options));
  const state = useSyncExternalStore(engine.subscribe, engine.snapshot);
  useEffect(() => () => engine.dispose(), [engine]);
  return { engine, state };
}
