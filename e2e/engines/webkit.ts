import { spawn } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import * as z from 'zod';
import { PHONE, untilDone, type Engine } from './engine';

const DRIVER = '/usr/bin/WebKitWebDriver';
const LIBRARIES = '/usr/lib';
/** The key under which WebDriver hands over an element (W3C WebDriver, "Elements"). */
const ELEMENT = 'element-6066-11e4-a52e-4f735466cecf';

/** The small browser that WebKitGTK brings with it, wherever this machine's libraries are. */
function smallBrowser(): string {
  for (const machine of readdirSync(LIBRARIES)) {
    if (!machine.endsWith('-linux-gnu')) continue;
    const found = readdirSync(join(LIBRARIES, machine)).find((name) => name.startsWith('webkit2gtk-'));
    if (found) return join(LIBRARIES, machine, found, 'MiniBrowser');
  }
  throw new Error('WebKitGTK has no small browser here: install webkit2gtk-driver');
}

const freePort = (): Promise<number> =>
  new Promise((done, failed) => {
    const server = createServer();
    server.once('error', failed);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => done(port));
    });
  });

const answered = z.object({ value: z.unknown() });
const refusal = z.object({ error: z.string(), message: z.string() });

/** Debian's WebKit on a screen that nobody sees, by plain WebDriver calls (W3C WebDriver, "Endpoints"). */
export async function openWebKit(): Promise<Engine> {
  const port = await freePort();
  const driver = spawn('xvfb-run', ['-a', DRIVER, `--port=${port}`], { detached: true, stdio: 'ignore' });
  const end = () => {
    if (driver.pid !== undefined && driver.exitCode === null) process.kill(-driver.pid);
  };
  async function call(method: 'GET' | 'POST' | 'DELETE', path: string, body?: object): Promise<unknown> {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      ...(method === 'POST' ? { body: JSON.stringify(body ?? {}) } : {}),
    });
    const { value } = answered.parse(await response.json());
    if (response.ok) return value;
    const { error, message } = refusal.parse(value);
    throw new Error(`${error}: ${message || path}`);
  }
  try {
    const { sessionId } = z.object({ sessionId: z.string() }).parse(
      await untilDone('a session', () =>
        call('POST', '/session', {
          capabilities: {
            alwaysMatch: {
              'webkitgtk:browserOptions': { binary: smallBrowser(), args: ['--automation'] },
            },
          },
        }),
      ),
    );
    const session = `/session/${sessionId}`;
    const found = async (place: string): Promise<string> => {
      const element = await call('POST', `${session}/element`, { using: 'xpath', value: place });
      return `${session}/element/${z.object({ [ELEMENT]: z.string() }).parse(element)[ELEMENT]}`;
    };
    await call('POST', `${session}/window/rect`, PHONE);
    const version = z
      .object({ capabilities: z.object({ browserVersion: z.string() }) })
      .safeParse(await call('GET', session).catch(() => null));
    return {
      name: `WebKit${version.success ? ` (${version.data.capabilities.browserVersion})` : ''}`,
      goto: async (url) => {
        await call('POST', `${session}/url`, { url });
      },
      isThere: async (place) =>
        z
          .array(z.unknown())
          .parse(await call('POST', `${session}/elements`, { using: 'xpath', value: place })).length > 0,
      see: async (place, ms) => {
        await untilDone(place, () => found(place), ms);
      },
      tap: async (place) => {
        await untilDone(place, async () => call('POST', `${await found(place)}/click`));
      },
      text: (place) =>
        untilDone(place, async () => z.string().parse(await call('GET', `${await found(place)}/text`))),
      address: async () => z.string().parse(await call('GET', `${session}/url`)),
      complaints: () => Promise.resolve([]),
      picture: async () =>
        Buffer.from(z.string().parse(await call('GET', `${session}/screenshot`)), 'base64'),
      close: async () => {
        await call('DELETE', session);
        end();
      },
    };
  } catch (error) {
    end();
    throw error;
  }
}
