import { useNavigationContainerRef, useRouter, type Href } from 'expo-router';
import { useCallback } from 'react';

/** Does something, then goes where it leads. */
export type Onwards = <T>(
  work: Promise<T>,
  /** Where to, or null to stay. */
  to: (done: T) => Href | null,
  how?: 'push' | 'replace',
) => Promise<void>;

/** Goes on once work is done: whoever has gone elsewhere meanwhile is left there. */
export function useOnwards(): Onwards {
  const router = useRouter();
  const navigation = useNavigationContainerRef();
  return useCallback(
    async (work, to, how = 'push') => {
      const shown = () => (navigation.getCurrentRoute() as { key: string } | undefined)?.key;
      const from = shown();
      const target = to(await work);
      if (target !== null && shown() === from) router[how](target);
    },
    [router, navigation],
  );
}
