import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { DAY_MS } from '@/core/base';

/** A certificate for this machine's own addresses, made once and kept, so that a phone has to accept it only once. */
export async function selfSignedPair(folder: string): Promise<{ cert: string; key: string }> {
  const certFile = join(folder, 'cert.pem');
  const keyFile = join(folder, 'key.pem');
  if (!existsSync(certFile) || !existsSync(keyFile)) {
    const addresses = Object.values(networkInterfaces()).flatMap((each) =>
      (each ?? []).map((one) => one.address),
    );
    const pair = await generate([{ name: 'commonName', value: 'gold-reed' }], {
      keySize: 2048,
      notAfterDate: new Date(Date.now() + 365 * DAY_MS),
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
