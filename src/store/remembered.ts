/**
 * What a record was read as, for as long as its text stays the same: years of a log are read once, and after a change only the
 * month that changed. What is returned is shared and must not be changed. @param most records that are remembered.
 */
export function remembered<T>(read: (text: string) => T, most: number): (key: string, text: string) => T {
  const known = new Map<string, { readonly text: string; readonly value: T }>();
  return (key, text) => {
    const before = known.get(key);
    const now = before?.text === text ? before : { text, value: read(text) };
    // The latest asked for stands last, and the one that was not asked for the longest goes.
    known.delete(key);
    known.set(key, now);
    for (const oldest of known.keys()) {
      if (known.size <= most) break;
      known.delete(oldest);
    }
    return now.value;
  };
}
