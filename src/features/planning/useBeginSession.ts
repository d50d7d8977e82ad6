import { sessionOf, type Block } from '@/core/plan';
import { keepSession, newId } from '@/store';
import { dayKey, useOnwards } from '@/ui';

/** Begins a row of blocks as a session: one press, and the stand takes it from there. */
export function useBeginSession(): (
  instrumentId: string,
  title: string,
  blocks: readonly Block[],
) => Promise<void> {
  const onwards = useOnwards();
  return async (instrumentId, title, blocks) => {
    const now = new Date();
    const session = sessionOf(newId(now), now, dayKey(now), instrumentId, title, blocks);
    await onwards(keepSession(session), () => '/session');
  };
}
