import { X509Certificate } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DAY_MS } from '@/core/base';
import { selfSignedPair } from './tls';

let folder: string;
beforeEach(async () => (folder = await mkdtemp(join(tmpdir(), 'tls-test-'))));
afterEach(() => rm(folder, { recursive: true }));

it('a pair is kept as long as it serves, and made anew before it ends or for a new address', async () => {
  const now = Date.now();
  const home = ['127.0.0.1', '192.168.7.2'];
  const first = await selfSignedPair(folder, home, now);
  expect(new X509Certificate(first.cert).checkIP('192.168.7.2')).toBe('192.168.7.2');
  expect(await selfSignedPair(folder, home, now + 300 * DAY_MS)).toEqual(first);
  const renewed = await selfSignedPair(folder, home, now + 340 * DAY_MS);
  expect(renewed.cert).not.toBe(first.cert);
  const elsewhere = await selfSignedPair(folder, [...home, '10.1.2.3'], now + 341 * DAY_MS);
  expect(elsewhere.cert).not.toBe(renewed.cert);
  expect(new X509Certificate(elsewhere.cert).checkIP('10.1.2.3')).toBe('10.1.2.3');
});
