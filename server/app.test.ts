import { toInt16 } from '@/core/base';
import type { FastifyInstance } from 'fastify';
import { heldNote } from '@/core/music/scores.testing';
import { analysisSchema, encodeWav } from '@/core/formats';
import { findInstrument } from '@/core/instruments';
import { perform, steadyPlayer } from '@/core/lab';
import { analyse } from './analyse';
import { buildApp } from './app';
import { QueueFull, type AnalysisQueue } from './queue';

const inline: AnalysisQueue = { run: analyse, close: () => Promise.resolve() };
const full: AnalysisQueue = {
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
  expect((await app.inject('/api/health')).json()).toEqual({ ok: true, name: 'gold-reed', demo: false });
  expect((await app.inject('/api/demo')).statusCode).toBe(404);
});
