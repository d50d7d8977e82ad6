import { useEffect, useState } from 'react';
import { useFonts } from 'expo-font';

/** How long the page is held back for its letters, milliseconds. */
const PATIENCE_MS = 2500;

/**
 * Whether the page may be shown: its letters are there, or have failed, or have been waited for long enough. Without them it is
 * read in the machine's own letters, and painted anew when they come; a page that never opens says nothing.
 */
export function useLettering(faces: Parameters<typeof useFonts>[0]): boolean {
  const [ready, error] = useFonts(faces);
  const [waited, setWaited] = useState(false);
  useEffect(() => {
    const patience = setTimeout(() => setWaited(true), PATIENCE_MS);
    return () => clearTimeout(patience);
  }, []);
  return ready || error !== null || waited;
}
