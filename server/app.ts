import { createReadStream, existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyError, type FastifyInstance, type FastifyReply } from 'fastify';
import * as z from 'zod';
import { checked, DAY_SECONDS } from '@/core/base';
import { findInstrument, instruments } from '@/core/instruments';
import { LONGEST_MINUTES } from './analyse';
import { guard, OWN_HOSTS } from './guards';
import { QueueFull, TookTooLong, type AnalysisQueue } from './queue';
import { TooLarge, TooMany, TooSlow, Uploads, type UploadLimits } from './uploads';

/** Half an hour of one channel of 24 bits at 48 kHz, or of two of 16, and a little for the header. */
const MOST_BYTES = LONGEST_MINUTES * 60 * 48_000 * 4 + (1 << 20);
const UPLOADS: UploadLimits = {
  mostBytes: MOST_BYTES,
  atOnce: 12,
  ofOneClient: 3,
  longestMs: 5 * 60_000,
  slowest: 16_000,
  beginsMs: 8000,
};
/** A client that sends nothing for so long has gone. */
const SILENT_MS = 60_000;
const YEAR_SECONDS = 365 * DAY_SECONDS;

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
  /** Folder of the demo data; none when the server was started with an empty store. */
  readonly demoFolder?: string;
  readonly tls?: { readonly cert: string; readonly key: string };
  /** Names under which the server answers; null: any address of this machine in its network. */
  readonly hosts?: readonly string[] | null;
  readonly uploads?: UploadLimits;
  /** Where recordings lie while they are looked at; the machine's folder for passing things unless told. */
  readonly uploadFolder?: string;
}

const problem = (message: string) => ({ error: message });

export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const { tls, hosts = OWN_HOSTS } = options;
  const app = Fastify({
    bodyLimit: MOST_BYTES,
    connectionTimeout: SILENT_MS,
    // A stalled upload must not keep the server from ending.
    forceCloseConnections: true,
    return503OnClosing: true,
    ...(tls && { https: tls }),
  }) as unknown as FastifyInstance;
  app.setErrorHandler(answerError);
  await guard(app, { hosts });
  // Recordings go to disk as they arrive, whatever type they are sent as.
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('*', (_request, payload, done) => done(null, payload));
  const edition = options.demoFolder === undefined ? null : await editionIn(options.demoFolder);
  app.get('/api/health', () => ({
    ok: true,
    name: 'gold-reed',
    demo: options.demoFolder !== undefined,
    edition,
  }));
  addAnalyses(app, options);
  if (options.demoFolder !== undefined) await addDemo(app, options.demoFolder);
  else
    app.get('/api/demo', (_request, reply) =>
      reply.code(404).send(problem('this server was started without demo data')),
    );
  if (options.staticFolder !== undefined) await addPages(app, options.staticFolder);
  return app;
}

function addAnalyses(
  app: FastifyInstance,
  { queue, uploads: limits = UPLOADS, uploadFolder }: AppOptions,
): void {
  const uploads = new Uploads(limits, uploadFolder);
  app.post('/api/analyses', async (request, reply) => {
    const query = checked(querySchema, request.query, 'query');
    if (!query.ok) return reply.code(400).send(problem(query.problem));
    const { instrument, a4, drone, company, frames } = query.value;
    if (!findInstrument(instrument)) {
      const known = instruments.map((each) => each.id).join(', ');
      return reply.code(404).send(problem(`instrument: there is no "${instrument}"; known are ${known}`));
    }
    if (Number(request.headers['content-length'] ?? 0) > limits.mostBytes) throw new TooLarge();
    if (!request.body) return reply.code(400).send(problem('send a WAV file as the body'));
    // Whether there is room is asked before the body is taken in.
    if (queue.isFull) throw new QueueFull();
    const gone = new AbortController();
    reply.raw.once('close', () => {
      if (!reply.raw.writableFinished) gone.abort();
    });
    const outcome = await uploads.with(request.ip, request.body as Readable, gone.signal, (path) =>
      queue.run(
        { path, instrumentId: instrument, a4, drone, company: company === '1', withFrames: frames === '1' },
        gone.signal,
      ),
    );
    return outcome.ok ? outcome.value : reply.code(422).send(problem(outcome.problem));
  });
}

const editionSchema = z.object({ edition: z.string() });

/** Which edition of the demo is served: a browser that has it asks for no more. */
const editionIn = async (folder: string): Promise<string> =>
  editionSchema.parse(JSON.parse(await readFile(join(folder, 'edition.json'), 'utf8'))).edition;

async function addDemo(app: FastifyInstance, folder: string): Promise<void> {
  await app.register(fastifyStatic, { root: folder, serve: false, preCompressed: true, decorateReply: true });
  for (const [url, file] of [
    ['/api/demo', 'demo.json'],
    ['/api/demo/takes', 'takes.json'],
  ] as const)
    app.get(url, (_request, reply) => reply.header('cache-control', 'no-cache').sendFile(file));
  app.get<{ Params: { id: string } }>('/api/demo/sound/:id', (request, reply) => {
    const { id } = request.params;
    const path = join(folder, 'sound', `${id}.pcm`);
    if (!/^[\w-]+$/.test(id) || !existsSync(path))
      return reply.code(404).send(problem('there is no such sound in the demo'));
    return reply.type('application/octet-stream').send(createReadStream(path));
  });
}

async function addPages(app: FastifyInstance, folder: string): Promise<void> {
  await app.register(async (pages) => {
    await pages.register(fastifyStatic, {
      root: folder,
      decorateReply: !app.hasReplyDecorator('sendFile'),
      preCompressed: true,
      cacheControl: false,
      setHeaders(response, path) {
        // A name with a hash is never another file; everything else is asked for anew.
        const hashed = /[-.][0-9a-f]{32}[@.]/.test(path);
        void response.setHeader(
          'cache-control',
          hashed ? `public, max-age=${YEAR_SECONDS}, immutable` : 'no-cache',
        );
      },
    });
    // The app routes by itself: any page that is no file and no API call is the app's.
    app.setNotFoundHandler(({ method, url }, reply) => {
      const isPage = (method === 'GET' || method === 'HEAD') && !url.startsWith('/api/') && !isFile(url);
      void reply.header('cache-control', 'no-cache');
      return isPage
        ? reply.sendFile('index.html', folder)
        : reply.code(404).send(problem('there is nothing at this address'));
    });
  });
}

/** Whether an address is a file's: a missing one must not be answered with a page, which would be kept in its place. */
function isFile(url: string): boolean {
  const path = url.replace(/[?#].*$/, '');
  return /^\/(_expo|assets|icons)(\/|$)/.test(path) || /\.[^/]*$/.test(path);
}

/** Every failure in words of ours, without a path or a line of code. */
function answerError(error: FastifyError, _request: unknown, reply: FastifyReply): FastifyReply {
  const wait = (seconds: number, words: string) =>
    reply.code(503).header('Retry-After', String(seconds)).send(problem(words));
  if (error instanceof QueueFull || error instanceof TooMany)
    return wait(20, 'too many recordings are waiting; try again in 20 s');
  if (error instanceof TooLarge)
    return reply
      .code(413)
      .send(
        problem(
          `the recording is too large; ${LONGEST_MINUTES} minutes of 48 kHz, two channels of 16 bits is the most`,
        ),
      );
  if (error instanceof TooSlow) return reply.code(408).send(problem('the recording did not come in time'));
  if (error instanceof TookTooLong) return wait(60, 'the analysis took too long and was ended');
  // Nobody waits for an answer any more.
  if (reply.raw.destroyed) return reply;
  const status = error.statusCode ?? 500;
  if (status >= 400 && status < 500) return reply.code(status).send(problem(error.message));
  console.error(error);
  return reply.code(503).header('Retry-After', '20').send(problem('something went wrong here; try again'));
}
