type Plain = Readonly<Record<string, unknown>>;

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const idOf = (item: unknown): string | null =>
  isPlain(item) && typeof item['id'] === 'string' ? item['id'] : null;
/** Whether a list can be told apart item by item: words, or things with ids. */
const isSet = (list: unknown): list is readonly unknown[] =>
  Array.isArray(list) && list.every((item) => typeof item === 'string' || idOf(item) !== null);
const nameOf = (item: unknown): string => idOf(item) ?? String(item);

function isEqual(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => isEqual(item, b[i]));
  if (!isPlain(a) || !isPlain(b)) return false;
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => isEqual(a[name], b[name]));
}

/**
 * The change that leads from one state to another, made to a third: what it did not touch stays as it stands there, field by
 * field, entry by entry of records, item by item of lists of words or of things with an `id`. Where both changed the same, the
 * change wins.
 */
export function rebased<T>(from: T, to: T, onto: T): T {
  return merged(from, to, onto, () => true) as T;
}

/** A change taken back, and nothing that came after it: what is otherwise since stays as it is now. */
export function takenBack<T>(before: T, after: T, now: T): T {
  return merged(after, before, now, isEqual) as T;
}

/** Whether a leaf that stands so in the third state may be changed, by how it stood before the change. */
type May = (onto: unknown, from: unknown) => boolean;

function merged(from: unknown, to: unknown, onto: unknown, may: May): unknown {
  if (isEqual(from, to)) return onto;
  if (isPlain(from) && isPlain(to) && isPlain(onto)) return mergedRecords(from, to, onto, may);
  if (isSet(from) && isSet(to) && isSet(onto)) {
    const [a, b, c] = [from, to, onto].map((list) =>
      Object.fromEntries(list.map((item) => [nameOf(item), item])),
    ) as [Plain, Plain, Plain];
    const next = mergedRecords(a, b, c, may);
    const order = new Set((isEqual(onto, from) ? to : [...onto, ...to]).map(nameOf));
    return [...order].filter((name) => name in next).map((name) => next[name]);
  }
  return may(onto, from) ? to : onto;
}

function mergedRecords(from: Plain, to: Plain, onto: Plain, may: May): Plain {
  const next: Record<string, unknown> = { ...onto };
  for (const name of new Set([...Object.keys(from), ...Object.keys(to)])) {
    if (isEqual(from[name], to[name])) continue;
    if (name in from && name in to && name in onto)
      next[name] = merged(from[name], to[name], onto[name], may);
    else if (!may(onto[name], from[name])) continue;
    else if (name in to) next[name] = to[name];
    else delete next[name];
  }
  return next;
}
