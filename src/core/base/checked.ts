import type * as z from 'zod';
import { failure, success, type Outcome } from './outcome';

const KINDS: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'yes or no (true or false)',
  array: 'a list',
  object: 'a record',
  record: 'a record',
  null: 'empty (null)',
};
const LONG = new Set(['string', 'array', 'set', 'map']);

/** What is wrong with a value, for those who never heard of schemas; a schema's own words go before these. */
const inPlainWords: z.core.$ZodErrorMap = (issue) => {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? 'is missing'
        : `must be ${KINDS[issue.expected] ?? `a ${issue.expected}`}`;
    case 'too_small':
      return LONG.has(issue.origin)
        ? `must not be shorter than ${issue.minimum}`
        : `must be ${issue.minimum} or more`;
    case 'too_big':
      return LONG.has(issue.origin)
        ? `must not be longer than ${issue.maximum}`
        : `must be ${issue.maximum} or less`;
    case 'invalid_value':
      return `must be ${issue.values.map(String).join(' or ')}`;
    case 'unrecognized_keys':
      return `holds what is not known here: ${issue.keys.join(', ')}`;
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}`;
    default:
      return 'is not as it must be';
  }
};

/**
 * What has come from outside (a file, a form, the storage, a request), checked.
 * @param whole what the value is called where no field of it is to blame.
 * @returns a problem that names the field and says in plain words what it must be.
 */
export function checked<T>(schema: z.ZodType<T>, value: unknown, whole = 'it'): Outcome<T> {
  const read = schema.safeParse(value, { error: inPlainWords });
  if (read.success) return success(read.data);
  const [issue] = read.error.issues;
  const field = issue && issue.path.length > 0 ? issue.path.join('.') : whole;
  return failure(`${field}: ${issue?.message ?? 'is not as it must be'}`);
}
