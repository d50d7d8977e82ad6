import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav } from '@/core/formats';
import { Random, toInt16 } from '@/core/base';
import { broken, TRIALS } from '@/core/base/broken.testing';
import { instruments } from '@/core/instruments';
import { analyse } from './analyse';
import { buildApp } from './app';

const RATES = [8000, 22_050, 48_000, 96_000];
/** Of an analysis of a tenth of a second, and of refusing whatever else comes. */
const LONGEST_MS = 2000;

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random.next() * from.length)]!;

/** A short recording, mostly whole, with values that no microphone gives. */
function recording(random: Random): Uint8Array {
  const rate = pick(random, RATES);
  const samples = Float32Array.from({ length: Math.floor(rate * 0.1 * random.next()) }, (_, i) =>
    Math.sin((2 * Math.PI * 440 * i) / rate),
  );
  return encodeWav(toInt16(samples), rate);
}

/** What a stranger may ask for: a query that is right, nearly right, or nothing like it. */
function query(random: Random): string {
  const odd = ['', '-1', '1e999', 'NaN', '%00', '../../etc', '{}', '440,'.repeat(50), '🎵', '__proto__'];
  const value = (right: string) => encodeURIComponent(random.next() < 0.8 ? right : pick(random, odd));
  return [
    `instrument=${value(pick(random, instruments).id)}`,
    ...(random.next() < 0.5 ? [`a4=${value('442')}`] : []),
    ...(random.next() < 0.3 ? [`drone=${value('220,330')}`] : []),
    ...(random.next() < 0.3 ? [`company=${value('1')}`] : []),
    ...(random.next() < 0.3 ? [`frames=${value('1')}`] : []),
    ...(random.next() < 0.1 ? ['instrument=flute', '%zz=1'] : []),
  ].join('&');
}

it('whatever is sent is answered in words, soon, and leaves nothing behind', async () => {
  const uploadFolder = await mkdtemp(join(tmpdir(), 'malformed-test-'));
  const app = await buildApp({
    uploadFolder,
    queue: { isFull: false, run: analyse, close: () => Promise.resolve() },
  });
  const random = new Random(31);
  const answers = new Map<number, number>();
  let slowest = 0;
  for (let i = 0; i < TRIALS; i++) {
    const whole = recording(random);
    const began = performance.now();
    const { statusCode, body } = await app.inject({
      method: random.next() < 0.95 ? 'POST' : pick(random, ['PUT', 'DELETE', 'PATCH', 'OPTIONS']),
      url:
        random.next() < 0.95
          ? `/api/analyses?${query(random)}`
          : pick(random, ['/api/%', '/api/demo/sound/..%2f', '/api//']),
      payload: Buffer.from(random.next() < 0.1 ? whole : broken(whole, random)),
      headers: {
        'content-type': pick(random, [
          'audio/wav',
          'text/plain',
          'application/json',
          'multipart/form-data',
          'x',
        ]),
      },
    });
    slowest = Math.max(slowest, performance.now() - began);
    answers.set(statusCode, (answers.get(statusCode) ?? 0) + 1);
    if (statusCode >= 400) expect(body).not.toMatch(/\.ts|node_modules|gold-reed-upload|ENOENT/);
  }
  expect([...answers.keys()].filter((status) => status >= 500 && status !== 503)).toEqual([]);
  // Nothing here is too much at once: a 503 would be a failure of ours.
  expect(answers.get(503) ?? 0).toBe(0);
  for (const status of [200, 400, 404, 422]) expect(answers.get(status) ?? 0).toBeGreaterThan(0);
  expect(slowest).toBeLessThan(LONGEST_MS);
  expect(await readdir(uploadFolder)).toEqual([]);
  await app.close();
  await rm(uploadFolder, { recursive: true });
}, 300_000);
