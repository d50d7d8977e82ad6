import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import * as z from 'zod';
import { findInstrument, instruments } from '@/core/instruments';
import { LONGEST_MINUTES } from './analyse';
import { QueueFull, type AnalysisQueue } from './queue';

/** Half an hour of two channels of 32 bits at 192 kHz, and a little for the header. */
const MOST_BYTES = LONGEST_MINUTES * 60 * 192_000 * 8 + (1 << 20);

const querySchema = z.object({
  instrument: z.string({ error: 'say which instrument, for instance ?instrument=flute' }),
  a4: z.coerce
    .number({ error: 'must be a number of Hz' })
    .min(380, 'must be 380 Hz or more')
    .max(500, 'must be 500 Hz or less')
    .default(440),
  drone: z
    .string()
    .default('')
    .transform((text) => (text === '' ? [] : text.split(',').map(Number)))
    .refine((pitches) => pitches.length <= 4 && pitches.every((hertz) => hertz >= 20 && hertz <= 4000), {
      error: 'must be up to four frequencies from 20 to 4000 Hz, separated by commas',
    }),
  company: z.enum(['0', '1'], { error: 'must be 0 or 1' }).default('0'),
  frames: z.enum(['0', '1'], { error: 'must be 0 or 1' }).default('0'),
});

export interface AppOptions {
  readonly queue: AnalysisQueue;
  /** Folder of the built app; none for a server that only answers the API. */
  readonly staticFolder?: string;
  /** The demo store as JSON text; none when the server was started with an empty store. */
  readonly demo?: string;
  readonly tls?: { readonly cert: string; readonly key: string };
}

const problem = (message: string) => ({ error: message });

export async function buildApp({ queue, staticFolder, demo, tls }: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({ bodyLimit: MOST_BYTES, ...(tls && { https: tls }) }) as unknown as FastifyInstance;
  // Recordings go to disk as they arrive, whatever type they are sent as.
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('*', (_request, payload, done) => done(null, payload));

  app.get('/api/health', () => ({ ok: true, name: 'gold-reed', demo: demo !== undefined }));

  app.get('/api/demo', (_request, reply) =>
    demo === undefined
      ? reply.code(404).send(problem('this server was started without demo data'))
      : reply.type('application/json').send(demo),
  );

  app.post('/api/analyses', async (request, reply) => {
    const query = querySchema.safeParse(request.query);
    if (!query.success) {
      const [issue] = query.error.issues;
      return reply
        .code(400)
        .send(problem(`${issue?.path.join('.') ?? 'query'}: ${issue?.message ?? 'is not valid'}`));
    }
    const { instrument, a4, drone, company, frames } = query.data;
    if (!findInstrument(instrument)) {
      const known = instruments.map((each) => each.id).join(', ');
      return reply.code(404).send(problem(`instrument: there is no "${instrument}"; known are ${known}`));
    }
    const length = Number(request.headers['content-length'] ?? 0);
    if (length > MOST_BYTES) {
      return reply
        .code(413)
        .send(problem(`the recording is too large; ${LONGEST_MINUTES} minutes is the most`));
    }
    if (!request.body) return reply.code(400).send(problem('send a WAV file as the body'));
    const folder = await mkdtemp(join(tmpdir(), 'gold-reed-'));
    try {
      const path = join(folder, 'recording.wav');
      if (!(await store(request.body as Readable, path))) {
        return await reply
          .code(413)
          .send(problem(`the recording is too large; ${LONGEST_MINUTES} minutes is the most`));
      }
      const outcome = await queue.run({
        path,
        instrumentId: instrument,
        a4,
        drone,
        company: company === '1',
        withFrames: frames === '1',
      });
      return outcome.ok ? outcome.value : await reply.code(422).send(problem(outcome.problem));
    } catch (error) {
      if (error instanceof QueueFull) {
        return await reply
          .code(503)
          .header('Retry-After', '20')
          .send(problem('too many recordings are waiting; try again in 20 s'));
      }
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  if (staticFolder) {
    await app.register(fastifyStatic, { root: staticFolder });
    // The app routes by itself: any page that is no file and no API call is the app's.
    app.setNotFoundHandler((request, reply) =>
      request.url.startsWith('/api/') || request.method !== 'GET'
        ? reply.code(404).send(problem(`there is nothing at ${request.url}`))
        : reply.sendFile('index.html'),
    );
  }
  return app;
}

/** Writes the body to disk; false when it is larger than any recording may be. */
async function store(body: Readable, path: string): Promise<boolean> {
  let bytes = 0;
  const counted = async function* (chunks: AsyncIterable<Buffer>) {
    for await (const chunk of chunks) {
      bytes += chunk.length;
      if (bytes > MOST_BYTES) return;
      yield chunk;
    }
  };
  await pipeline(body, counted, createWriteStream(path));
  return bytes <= MOST_BYTES;
}
