import type { Random } from './random';

/** How many broken things a test tries; `npm run trials` tries more. */
export const TRIALS = Number(process.env['TRIALS'] ?? 400);

/** Bytes with some of them changed, left out, repeated or put in. */
export function broken(bytes: Uint8Array, random: Random): Uint8Array {
  let out = [...bytes];
  for (let i = 0; i <= 6 * random.next(); i++) {
    const at = Math.floor(random.next() * out.length);
    const length = Math.floor(random.next() * 40);
    const kind = random.next();
    if (kind < 0.3) out[at] = Math.floor(256 * random.next());
    else if (kind < 0.5) out.splice(at, length);
    else if (kind < 0.7) out.splice(at, 0, ...out.slice(at, at + length));
    else if (kind < 0.9) out.splice(at, 0, ...Array.from({ length }, () => Math.floor(256 * random.next())));
    else out = out.slice(0, at);
  }
  return Uint8Array.from(out);
}
