/** Sorts by time; the random tail keeps two takes of one millisecond apart. Works without a secure context. */
export function newId(now: Date): string {
  const tail = crypto.getRandomValues(new Uint32Array(1))[0] ?? 0;
  return `${now.getTime().toString(36)}-${tail.toString(36)}`;
}
