import { fromByteArray, toByteArray } from 'base64-js';
import * as z from 'zod';
import { checked, failure, type Outcome } from '@/core/base';
import { dayPlanSchema, routineSchema } from '@/core/plan';

/** Newest version of what is shared that is known here. The first knew fewer faults that a block may be about. */
export const SHARED_VERSION = 2;
/** More text than this is no practice plan, and is not even looked at. */
const MOST_BYTES = 300_000;
const MOST_DAYS = 31;

export const sharedSchema = z.discriminatedUnion('kind', [
  z.object({ goldReed: z.literal(SHARED_VERSION), kind: z.literal('routine'), routine: routineSchema }),
  z.object({
    goldReed: z.literal(SHARED_VERSION),
    kind: z.literal('week'),
    name: z.string().trim().min(1).max(80),
    instrumentId: z.string(),
    days: z.array(dayPlanSchema).min(1).max(MOST_DAYS),
  }),
]);
/** What one player sends another: a row of blocks under a name, or days of a plan. Nothing of what was heard is in it. */
export type Shared = z.infer<typeof sharedSchema>;

const marked = z.object({ goldReed: z.number().int() });

/** As the text of a file. */
export const sharedText = (shared: Shared): string => JSON.stringify(shared);

/** What a file holds. A problem says what is wrong with it; nothing is taken on trust. */
export function readShared(text: string): Outcome<Shared> {
  if (text.length > MOST_BYTES) return failure('it is too long to be a routine or a week');
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    return failure('it is damaged, or no file of Gold Reed: ask for it to be sent again');
  }
  const version = marked.safeParse(found);
  if (!version.success) return failure('it is no routine and no week of Gold Reed');
  if (version.data.goldReed > SHARED_VERSION)
    return failure(
      'it was made by a newer Gold Reed: reload this page while you are on line, then open it again',
    );
  const read = checked(sharedSchema, { ...marked.loose().parse(found), goldReed: SHARED_VERSION });
  return read.ok ? read : failure(`${read.problem}; it may be damaged: ask for it to be sent again`);
}

/** As it stands in a link, after the #: deflated, in the letters that an address may have (RFC 1951; RFC 4648, section 5). */
export async function linkPart(shared: Shared): Promise<string> {
  const text = new Blob([sharedText(shared)]);
  const packed = await new Response(
    text.stream().pipeThrough(new CompressionStream('deflate-raw')),
  ).arrayBuffer();
  return fromByteArray(new Uint8Array(packed)).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');
}

/** @param part what stands after the # of a link. */
export async function readLink(part: string): Promise<Outcome<Shared>> {
  const letters = part.replaceAll('-', '+').replaceAll('_', '/');
  try {
    const packed = toByteArray(letters.padEnd(Math.ceil(letters.length / 4) * 4, '='));
    return readShared(await inflated(packed));
  } catch {
    return failure('the link is not whole: it may have been cut where it was copied');
  }
}

/** @throws for what is no deflated text, or longer than it may be: it is let go before it fills the memory. */
async function inflated(packed: Uint8Array): Promise<string> {
  const whole = new Blob([new Uint8Array(packed)])
    .stream()
    .pipeThrough(new DecompressionStream('deflate-raw'));
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const reader = whole.getReader();
  let text = '';
  let length = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return text + decoder.decode();
    length += value.length;
    if (length > MOST_BYTES) {
      await reader.cancel();
      throw new RangeError('too long');
    }
    text += decoder.decode(value, { stream: true });
  }
}
