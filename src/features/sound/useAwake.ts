import { activateKeepAwakeAsync, deactivateKeepAwake } from 'expo-keep-awake';
import { useEffect } from 'react';

const TAG = 'stand';

/** Keeps the screen awake while it is shown. A browser that cannot, or will not, is no reason to stop playing. */
export function useAwake(): void {
  useEffect(() => {
    const asked = activateKeepAwakeAsync(TAG).catch(() => undefined);
    return () => {
      // Letting go is possible only once it has been granted.
      void asked.then(() => deactivateKeepAwake(TAG)).catch(() => undefined);
    };
  }, []);
}
