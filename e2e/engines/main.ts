import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startServer } from '../browser';
import type { Engine } from './engine';
import { openFirefox } from './firefox';
import { journey } from './journey';
import { openWebKit } from './webkit';

const PICTURES = join('build', 'engines');

const ENGINES: Readonly<Record<string, () => Promise<Engine>>> = { webkit: openWebKit, firefox: openFirefox };

/** An error in words, with what lay behind it: a driver often wraps the reason. */
const told = (error: unknown): string =>
  error instanceof Error
    ? error.message + (error.cause === undefined ? '' : ` (${told(error.cause)})`)
    : String(error);

/** @returns whether the journey came to its end; what it ended at is drawn, and said. */
async function tried(id: string, open: () => Promise<Engine>, url: string): Promise<boolean> {
  const begun = Date.now();
  let engine: Engine | null = null;
  try {
    engine = await open();
    await journey(engine, url);
    const complaints = await engine.complaints();
    if (complaints.length > 0) throw new Error(complaints.join('; '));
    console.log(`${engine.name}: the whole journey in ${Math.round((Date.now() - begun) / 1000)} s`);
    return true;
  } catch (error) {
    console.log(`${engine?.name ?? id}: ${told(error)}`);
    return false;
  } finally {
    const picture = await engine?.picture().catch(() => null);
    if (picture) writeFileSync(join(PICTURES, `${id}.png`), picture);
    await engine?.close().catch(() => undefined);
  }
}

/** `npm run engines [-- webkit firefox]`: a player's first journey in browsers of other families; ends with the count. */
async function main(): Promise<void> {
  const wanted = process.argv.slice(2);
  const unknown = wanted.find((id) => !(id in ENGINES));
  if (unknown !== undefined)
    throw new Error(`there is no engine "${unknown}"; there are ${Object.keys(ENGINES).join(', ')}`);
  mkdirSync(PICTURES, { recursive: true });
  const server = await startServer();
  const outcomes = await Promise.all(
    Object.entries(ENGINES)
      .filter(([id]) => wanted.length === 0 || wanted.includes(id))
      .map(([id, open]) => tried(id, open, server.url)),
  );
  await server.stop();
  const passed = outcomes.filter(Boolean).length;
  console.log(`${passed} passed, ${outcomes.length - passed} failed`);
  process.exitCode = passed === outcomes.length ? 0 : 1;
}

void main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
