import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PassThrough } from 'node:stream';
import { TooMany, TooSlow, Uploads } from './uploads';

const LIMITS = { mostBytes: 1e6, atOnce: 4, ofOneClient: 2, longestMs: 60_000, slowest: 1000, beginsMs: 80 };
const never = new AbortController().signal;

let folder: string;
beforeAll(async () => (folder = await mkdtemp(join(tmpdir(), 'uploads-alone-'))));
afterAll(() => rm(folder, { recursive: true }));

it('one client that dribbles is given up soon, and keeps nobody else out meanwhile', async () => {
  const uploads = new Uploads(LIMITS, folder);
  const send = (client: string, body: PassThrough) =>
    uploads.with(client, body, never, () => Promise.resolve(client));
  const dribbling = [new PassThrough(), new PassThrough()].map((body) => {
    body.write('R');
    return send('10.0.0.9', body);
  });
  const slow = Promise.all(dribbling.map((each) => expect(each).rejects.toThrow(TooSlow)));
  await expect(send('10.0.0.9', new PassThrough())).rejects.toThrow(TooMany);
  const whole = new PassThrough();
  whole.end(Buffer.alloc(5000));
  await expect(send('10.0.0.7', whole)).resolves.toBe('10.0.0.7');
  await slow;
  // Its places are free again.
  const again = new PassThrough();
  again.end(Buffer.alloc(5000));
  await expect(send('10.0.0.9', again)).resolves.toBe('10.0.0.9');
});
