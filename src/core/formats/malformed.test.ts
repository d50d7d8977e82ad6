import { Random } from '@/core/base';
import { broken, TRIALS } from '@/core/base/broken.testing';
import { civilDay } from '@/core/plan';
import { plannedOn } from '@/core/plan/plan.testing';
import { openArchive, writeArchive } from './archive';
import { linkPart, readLink, readShared, sharedText, type Shared, SHARED_VERSION } from './shared';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const HELD = { path: 'takes/a.json', bytes: bytesOf(JSON.stringify({ remark: 'third reed, cold room' })) };

async function archiveBytes(): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  const to = new WritableStream<Uint8Array>({ write: (chunk) => void chunks.push(chunk.slice()) });
  const parts = (async function* () {
    yield await Promise.resolve(HELD);
  })();
  await writeArchive(
    parts,
    { createdAt: '2026-11-27T10:00:00.000Z', versions: { take: 1, settings: 1 }, takes: 1 },
    to,
  );
  return Uint8Array.from(chunks.flatMap((chunk) => [...chunk]));
}

const LONG_MS = 300_000;

it(
  'a broken archive gives what was put into it or says what is wrong, and never anything else',
  async () => {
    const whole = await archiveBytes();
    const random = new Random(21);
    const said = new Set<string>();
    let [read, slowest] = [0, 0];
    for (let i = 0; i < TRIALS; i++) {
      const began = performance.now();
      const opened = await openArchive(new Blob([i === 0 ? whole : broken(whole, random)] as BlobPart[]));
      const found = opened.ok ? await opened.value.read(HELD.path) : opened;
      slowest = Math.max(slowest, performance.now() - began);
      if (opened.ok) await opened.value.close();
      if (found.ok) {
        read++;
        expect([...found.value]).toEqual([...HELD.bytes]);
      } else {
        said.add(found.problem);
        expect(found.problem).toMatch(/[a-z]{3}/);
        expect(found.problem).not.toMatch(/\n|Error|undefined|at \w+ \(/);
      }
    }
    expect(read).toBeGreaterThan(0);
    expect(said.size).toBeGreaterThan(3);
    expect(slowest).toBeLessThan(2000);
  },
  LONG_MS,
);

it(
  'a broken link or file of a plan is refused in words, or is a plan',
  async () => {
    const week: Shared = {
      goldReed: SHARED_VERSION,
      kind: 'week',
      name: 'A week',
      instrumentId: 'flute',
      days: [plannedOn([], { today: civilDay('2026-11-27') })],
    };
    const [link, text] = [bytesOf(await linkPart(week)), bytesOf(sharedText(week))];
    const random = new Random(22);
    let refused = 0;
    for (let i = 0; i < TRIALS; i++) {
      const found =
        i % 2 === 0 ? await readLink(textOf(broken(link, random))) : readShared(textOf(broken(text, random)));
      if (found.ok) expect(found.value.kind).toMatch(/^(week|routine|exercise)$/);
      else {
        refused++;
        expect(found.problem).toMatch(/[a-z]{3}/);
        expect(found.problem).not.toMatch(/\n|undefined|at \w+ \(/);
      }
    }
    expect(refused).toBeGreaterThan(TRIALS / 2);
  },
  LONG_MS,
);
