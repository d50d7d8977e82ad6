import { useRouter } from 'expo-router';
import { sessionOf, type Block } from '@/core/plan';
import { keepSession, newId } from '@/store';
import { dayKey } from '@/ui';

/** Begins a row of blocks as a session: one press, and the stand takes it from there. */
export function useBeginSession(): (
  instrumentId: string,
  title: string,
  blocks: readonly Block[],
) => Promise<void> {
  const router = useRouter();
  return async (instrumentId, title, blocks) => {
    const now = new Date();
    await keepSession(sessionOf(newId(now), now, dayKey(now), instrumentId, title, blocks));
    router.push('/session');
  };
}
