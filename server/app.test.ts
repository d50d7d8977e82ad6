import { mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { toInt16 } from '@/core/base';
import type { FastifyInstance } from 'fastify';
import { heldNote } from '@/core/music/scores.testing';
import { analysisSchema, encodeWav } from '@/core/formats';
import { findInstrument } from '@/core/instruments';
import { perform, steadyPlayer } from '@/core/lab';
import { analyse } from './analyse';
import { buildApp } from './app';
import { QueueFull, type AnalysisQueue } from './queue';
import { Uploads } from './uploads';

const inline: AnalysisQueue = { isFull: false, run: analyse, close: () => Promise.resolve() };
const full: AnalysisQueue = {
  isFull: true,
  run: () => Promise.reject(new QueueFull()),
  close: () => Promise.resolve(),
};

let app: FastifyInstance;
beforeAll(async () => {
  app = await buildApp({ queue: inline });
});
afterAll(() => app.close());

function bassoonTone(): Uint8Array {
  const instrument = findInstrument('bassoon');
  if (!instrument) throw new Error('bassoon');
  const player = { ...steadyPlayer, offsetCents: 12 };
  const { audio } = perform({
    score: heldNote('bassoon', { beats: 3 }),
    instrument,
    player,
    seed: 2,
    sampleRate: 44_100,
    a4: 442,
    leadSeconds: 0.4,
    tailSeconds: 0.4,
  });
  return encodeWav(toInt16(audio), 44_100);
}

const post = (query: string, payload: Uint8Array, to = app) =>
  to.inject({
    method: 'POST',
    url: `/api/analyses?${query}`,
    payload: Buffer.from(payload),
    headers: { 'content-type': 'audio/wav' },
  });

test('a recording is answered with its notes, and its frames when they are asked for', async () => {
  const wav = bassoonTone();
  const response = await post('instrument=bassoon&a4=442&frames=1', wav);
  expect(response.statusCode).toBe(200);
  const analysis = analysisSchema.parse(response.json());
  expect(analysis).toMatchObject({ instrument: 'bassoon', pitchStandardHz: 442, sampleRate: 44_100 });
  expect(analysis.notes).toHaveLength(1);
  expect(analysis.notes[0]).toMatchObject({ writtenName: 'C3', soundingMidi: 48, mode: 1, register: 'low' });
  expect(analysis.notes[0]?.centreCents).toBeCloseTo(12, 0);
  expect(analysis.frames?.f0Hz).toHaveLength(analysis.frames?.levelDb.length ?? 0);
  expect(analysisSchema.parse((await post('instrument=bassoon', wav)).json()).frames).toBeUndefined();
});

test.each([
  ['an unknown instrument', 'instrument=kazoo', 404, /no "kazoo"/],
  ['no instrument', '', 400, /instrument/],
  ['an odd pitch standard', 'instrument=flute&a4=loud', 400, /a4: must be a number/],
  ['a pitch standard out of reach', 'instrument=flute&a4=300', 400, /a4: must be 380/],
])('%s is refused in words', async (_, query, status, words) => {
  const response = await post(query, bassoonTone());
  expect(response.statusCode).toBe(status);
  expect(response.json<{ error: string }>().error).toMatch(words);
});

test.each([
  ['text', Buffer.from('not a recording at all'), /not a WAV file/],
  ['a truncated file', bassoonTone().subarray(0, 5000), /truncated/],
])('%s is refused in words', async (_, payload, words) => {
  const response = await post('instrument=flute', payload);
  expect(response.statusCode).toBe(422);
  expect(response.json<{ error: string }>().error).toMatch(words);
});

test('a recording of nothing has no notes', async () => {
  const response = await post('instrument=piccolo', encodeWav(new Int16Array(1600), 8000));
  expect(response.statusCode).toBe(200);
  expect(response.json()).toMatchObject({ notes: [], events: [] });
});

test('a queue that is full says when to come again', async () => {
  const busy = await buildApp({ queue: full });
  const response = await post('instrument=flute', bassoonTone(), busy);
  expect(response.statusCode).toBe(503);
  expect(response.headers['retry-after']).toBe('20');
  await busy.close();
});

test('health and demo', async () => {
  expect((await app.inject('/api/health')).json()).toEqual({
    ok: true,
    name: 'gold-reed',
    demo: false,
    edition: null,
  });
  expect((await app.inject('/api/demo')).statusCode).toBe(404);
  const folder = await mkdtemp(join(tmpdir(), 'demo-test-'));
  await mkdir(join(folder, 'sound'));
  for (const [name, text] of [
    ['demo.json', '{"edition":"x"}'],
    ['edition.json', '{"edition":"x"}'],
    ['takes.json', '{"takes":[]}'],
  ] as const)
    await writeFile(join(folder, name), text);
  await writeFile(join(folder, 'sound', 'demo-1.pcm'), Buffer.from([1, 0, 2, 0]));
  const demo = await buildApp({ queue: inline, demoFolder: folder });
  expect((await demo.inject('/api/demo')).json()).toEqual({ edition: 'x' });
  expect((await demo.inject('/api/demo/takes')).json()).toEqual({ takes: [] });
  expect((await demo.inject('/api/health')).json()).toMatchObject({ demo: true, edition: 'x' });
  expect((await demo.inject('/api/demo/sound/demo-1')).rawPayload).toEqual(Buffer.from([1, 0, 2, 0]));
  for (const id of ['demo-2', '..%2Fdemo.json', '%2e%2e%2f%2e%2e', 'a%00b'])
    expect((await demo.inject(`/api/demo/sound/${id}`)).statusCode).toBe(404);
  await demo.close();
  await rm(folder, { recursive: true });
});

describe('other sites', () => {
  it.each([
    ['evil.example', 421],
    ['localhost.evil.example:4280', 421],
    ['192.168.1.7:4280', 421],
    ['localhost:4280', 200],
    ['127.0.0.1:9', 200],
    ['[::1]:4280', 200],
  ])('cannot read through a name of their own: %s', async (host, status) => {
    expect((await app.inject({ url: '/api/health', headers: { host } })).statusCode).toBe(status);
  });

  it('cannot post', async () => {
    const from = (origin: string) =>
      app.inject({
        method: 'POST',
        url: '/api/analyses?instrument=flute',
        payload: Buffer.from('x'),
        headers: { host: 'localhost:4280', origin, 'content-type': 'text/plain' },
      });
    for (const origin of ['http://evil.example', 'null', 'http://localhost:9'])
      expect((await from(origin)).statusCode).toBe(403);
    expect((await from('http://localhost:4280')).statusCode).toBe(422);
  });

  it('cannot frame it, and it loads nothing of theirs', async () => {
    const { headers } = await app.inject('/api/health');
    expect(headers['content-security-policy']).toMatch(/default-src 'none'.*frame-ancestors 'none'/);
    expect(headers['content-security-policy']).not.toMatch(/unsafe-eval|https?:/);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['access-control-allow-origin']).toBeUndefined();
  });

  it('are let in on a network only by address or local name, and only when that was asked for', async () => {
    const lan = await buildApp({ queue: inline, hosts: null });
    const status = async (host: string) =>
      (await lan.inject({ url: '/api/health', headers: { host } })).statusCode;
    expect(await status('192.168.1.7:4280')).toBe(200);
    expect(await status('studio.local:4280')).toBe(200);
    expect(await status('evil.example')).toBe(421);
    await lan.close();
  });
});

describe('uploads', () => {
  const limits = { mostBytes: 2000, atOnce: 2, ofOneClient: 2, longestMs: 150, slowest: 0, beginsMs: 1000 };
  // Their own: other servers on this machine leave and sweep uploads too.
  let uploadFolder: string;
  const left = () => readdir(uploadFolder);
  let small: FastifyInstance;
  let url: string;
  const jobs: AbortSignal[] = [];
  beforeAll(async () => {
    uploadFolder = await mkdtemp(join(tmpdir(), 'uploads-test-'));
    const queue: AnalysisQueue = {
      ...inline,
      run: (job, signal) => {
        jobs.push(signal);
        return job.a4 === 441
          ? new Promise((_, fail) => signal.addEventListener('abort', () => fail(new Error('gone'))))
          : analyse(job);
      },
    };
    small = await buildApp({ queue, uploads: limits, uploadFolder });
    url = `${await small.listen({ port: 0, host: '127.0.0.1' })}/api/analyses?instrument=flute`;
  });
  afterAll(async () => {
    await small.close();
    await rm(uploadFolder, { recursive: true });
  });

  /** A body whose end the client leaves open. */
  function upload(bytes: number, to = url) {
    const request = httpRequest(to, { method: 'POST', headers: { 'content-type': 'audio/wav' } });
    const answer = new Promise<number | null>((done) => {
      request.on('response', (response) => done(response.statusCode ?? null));
      request.on('error', () => done(null));
    });
    request.write(Buffer.alloc(bytes));
    return { request, answer };
  }

  it('that are too large, without saying so, are refused while they come', async () => {
    const { request, answer } = upload(5000);
    request.end();
    expect([413, null]).toContain(await answer);
    expect(await left()).toEqual([]);
  });

  it('that stop coming are given up, and more than there is room for are not taken in', async () => {
    const waiting = [upload(10), upload(10)];
    await new Promise((done) => setTimeout(done, 30));
    const third = upload(10);
    third.request.end();
    expect(await third.answer).toBe(503);
    for (const { answer } of waiting) expect([408, null]).toContain(await answer);
    for (const { request } of waiting) request.destroy();
    expect(await left()).toEqual([]);
  });

  it('that nobody waits for any more end their analysis', async () => {
    jobs.length = 0;
    const { request } = upload(10, `${url}&a4=441`);
    request.end();
    while (jobs.length === 0) await new Promise((done) => setTimeout(done, 5));
    request.destroy();
    await new Promise<void>((done) => jobs[0]!.addEventListener('abort', () => done()));
    while ((await left()).length > 0) await new Promise((done) => setTimeout(done, 5));
  });

  it('do not keep the server from ending, and what a killed one left is swept away', async () => {
    const stalled = await buildApp({
      queue: inline,
      uploads: { ...limits, longestMs: 60_000 },
      uploadFolder,
    });
    const to = `${await stalled.listen({ port: 0, host: '127.0.0.1' })}/api/analyses?instrument=flute`;
    const { request } = upload(10, to);
    while ((await left()).length === 0) await new Promise((done) => setTimeout(done, 5));
    await stalled.close();
    request.destroy();
    await mkdtemp(join(uploadFolder, 'gold-reed-upload-'));
    await Uploads.sweep(uploadFolder);
    expect(await left()).toEqual([]);
  });
});

test('what goes wrong inside is told without a path or a line of code', async () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const broken = await buildApp({
    queue: { ...inline, run: () => Promise.reject(new Error('ENOENT: /secret/place')) },
  });
  const response = await post('instrument=flute', bassoonTone(), broken);
  expect(response.statusCode).toBe(503);
  expect(response.body).not.toMatch(/secret|ENOENT|\.ts/);
  jest.restoreAllMocks();
  await broken.close();
});

test('files with a hash in their name are kept for good, others are asked for anew, packed as the browser can read them', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'pages-test-'));
  const hashed = `entry-${'0a'.repeat(16)}.js`;
  for (const [name, text] of [
    ['index.html', 'page'],
    [hashed, 'code'],
    [`${hashed}.br`, 'packed'],
  ] as const)
    await writeFile(join(folder, name), text);
  const pages = await buildApp({ queue: inline, staticFolder: folder });
  const code = await pages.inject({ url: `/${hashed}`, headers: { 'accept-encoding': 'br' } });
  expect(code.headers).toMatchObject({
    'content-encoding': 'br',
    'cache-control': expect.stringMatching(/immutable/) as string,
  });
  for (const url of ['/', '/log/abc', '/no/such/page']) {
    const page = await pages.inject(url);
    expect([page.statusCode, page.body, page.headers['cache-control']]).toEqual([200, 'page', 'no-cache']);
  }
  expect((await pages.inject('/api/nothing')).statusCode).toBe(404);
  // What a worker would lay by in a script's place must not be a page.
  for (const url of [
    `/_expo/static/js/web/screens-${'0b'.repeat(16)}.js`,
    '/assets/font.ttf',
    '/icons',
    '/x.js?y=1',
  ])
    expect((await pages.inject(url)).statusCode).toBe(404);
  await pages.close();
  await rm(folder, { recursive: true });
});
