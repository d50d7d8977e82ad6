/** What of an exercise decides which notes it has. */
const NOTE_FIELDS = [
  'from',
  'to',
  'range',
  'note',
  'anchor',
  'reference',
  'problem',
  'key',
  'scale',
  'low',
  'drone',
  'root',
];

/** Exercises with the same key have the same notes; a slur has those of the slur back. */
export function setKey(family: string, values: Readonly<Record<string, unknown>>): string {
  const { from, to } = values;
  const turned = typeof from === 'number' && typeof to === 'number' && from > to;
  const same = turned ? { ...values, from: to, to: from } : values;
  return [family, ...NOTE_FIELDS.map((name) => JSON.stringify(same[name] ?? null))].join('/');
}
