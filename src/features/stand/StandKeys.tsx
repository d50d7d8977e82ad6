import { useEffect } from 'react';
import type { StandEngine } from './standEngine';
import type { StandState } from './standState';

interface StandKeysProps {
  readonly engine: StandEngine;
  readonly state: StandState;
  readonly onLeave: () => void;
  readonly onHelp: () => void;
}

/** Keys and pedals: page-turner pedals send arrows or page keys. */
export function StandKeys({ engine, state, onLeave, onHelp }: StandKeysProps) {
  const { phase } = state;
  useEffect(() => {
    const running = phase === 'counting' || phase === 'playing' || phase === 'waiting';
    const actions: Readonly<Record<string, () => void>> = {
      ' ': running ? engine.stop : engine.start,
      ArrowRight: engine.next,
      ArrowDown: engine.next,
      PageDown: engine.next,
      ArrowLeft: engine.again,
      ArrowUp: engine.again,
      PageUp: engine.again,
      r: engine.again,
      m: engine.toggleMetronome,
      d: engine.toggleDrone,
      h: engine.toggleHidden,
      '?': onHelp,
      Escape: onLeave,
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [engine, phase, onLeave, onHelp]);
  return null;
}
