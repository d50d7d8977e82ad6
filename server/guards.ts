import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import type { FastifyInstance } from 'fastify';

/** Requests a minute from one address: far beyond what a page of ours asks for. */
const MOST_REQUESTS = 1200;

/** What the interface uses, and nothing else. */
const POLICY = {
  defaultSrc: ["'none'"],
  scriptSrc: ["'self'"],
  workerSrc: ["'self'", 'blob:'],
  connectSrc: ["'self'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  mediaSrc: ["'self'", 'blob:', 'data:'],
  fontSrc: ["'self'", 'data:'],
  // Styles are made while the page runs; they cannot run anything.
  styleSrc: ["'self'", "'unsafe-inline'"],
  manifestSrc: ["'self'"],
  baseUri: ["'none'"],
  formAction: ["'none'"],
  frameAncestors: ["'none'"],
  objectSrc: ["'none'"],
} as const;

export interface GuardOptions {
  /** Names under which the server answers, without port; null: any that is an address or ends in .local (--lan). */
  readonly hosts: readonly string[] | null;
}

/** Names that this machine calls itself. */
export const OWN_HOSTS = ['localhost', '127.0.0.1', '[::1]'] as const;

const ADDRESS = /^(\d{1,3}(\.\d{1,3}){3}|\[[0-9a-f:.]+\])$/i;

/** `localhost:4280` → `localhost`, `[::1]:4280` → `[::1]`. */
const nameIn = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

function isOurs(host: string | undefined, { hosts }: GuardOptions): boolean {
  if (host === undefined) return false;
  const name = nameIn(host);
  return hosts ? hosts.includes(name) : ADDRESS.test(name) || name === 'localhost' || name.endsWith('.local');
}

/**
 * Keeps other sites out: a page elsewhere must neither read this server through a name of its own (DNS rebinding) nor post to
 * it; and what it serves can neither be framed nor load anything from elsewhere.
 */
export async function guard(app: FastifyInstance, options: GuardOptions): Promise<void> {
  await app.register(helmet, {
    contentSecurityPolicy: { useDefaults: false, directives: { ...POLICY } },
    // A local address without https must not be told to use it from then on.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
    referrerPolicy: { policy: 'no-referrer' },
  });
  await app.register(rateLimit, {
    max: MOST_REQUESTS,
    timeWindow: '1 minute',
    errorResponseBuilder: () =>
      Object.assign(new Error('too many requests; wait a minute'), { statusCode: 429 }),
  });
  app.addHook('onRequest', async (request, reply) => {
    const { host, origin } = request.headers;
    if (!isOurs(host, options))
      return reply
        .code(421)
        .send({ error: 'this server does not answer under that name; open it by the address it printed' });
    const isRead = request.method === 'GET' || request.method === 'HEAD';
    if (isRead || origin === undefined) return;
    if (originHost(origin) !== host)
      return reply.code(403).send({ error: 'other sites may not post to this server' });
  });
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
