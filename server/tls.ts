import { X509Certificate } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { DAY_MS } from '@/core/base';

/** A pair with less time left than this is made anew. */
const RENEWED_MS = 30 * DAY_MS;

/** Whether a certificate still serves: for a month at least, under all these addresses. */
async function serves(certFile: string, addresses: readonly string[], now: number): Promise<boolean> {
  try {
    const cert = new X509Certificate(await readFile(certFile));
    return (
      Date.parse(cert.validTo) - now > RENEWED_MS && addresses.every((ip) => cert.checkIP(ip) !== undefined)
    );
  } catch {
    return false;
  }
}

/** Addresses of this machine, without the zones that some have. */
const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .map(({ address }) => address.replace(/%.*$/, ''));

/**
 * A certificate for this machine's own addresses, kept, so that a phone has to accept it only once; made anew before it ends, and
 * when the machine has an address that it does not name.
 */
export async function selfSignedPair(
  folder: string,
  addresses: readonly string[] = ownAddresses(),
  now = Date.now(),
): Promise<{ cert: string; key: string }> {
  const certFile = join(folder, 'cert.pem');
  const keyFile = join(folder, 'key.pem');
  if (!existsSync(keyFile) || !(await serves(certFile, addresses, now))) {
    const pair = await generate([{ name: 'commonName', value: 'gold-reed' }], {
      keySize: 2048,
      notAfterDate: new Date(now + 365 * DAY_MS),
      extensions: [
        {
          name: 'subjectAltName',
          altNames: [{ type: 2, value: 'localhost' }, ...addresses.map((ip) => ({ type: 7 as const, ip }))],
        },
      ],
    });
    await mkdir(folder, { recursive: true });
    await writeFile(certFile, pair.cert);
    await writeFile(keyFile, pair.private, { mode: 0o600 });
  }
  return { cert: await readFile(certFile, 'utf8'), key: await readFile(keyFile, 'utf8') };
}
