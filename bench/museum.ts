/** Writes what the program of now leaves behind into fixtures/NAME, and the forms of what it stores that are not known yet. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { exhibit, fingerprints } from '@/store/museum.testing';

async function main([name]: readonly string[]): Promise<void> {
  if (!name) throw new Error('say how the release is called: npm run museum -- 2');
  const folder = join(process.cwd(), 'fixtures', name);
  if (existsSync(folder))
    throw new Error(`fixtures/${name} is there already, and a release is not changed any more`);
  mkdirSync(folder, { recursive: true });
  const { log, archive, link, routine } = await exhibit();
  writeFileSync(join(folder, 'log.json.gz'), gzipSync(JSON.stringify(log), { level: 9 }));
  writeFileSync(join(folder, 'log.goldreed.zip'), archive);
  writeFileSync(join(folder, 'link.txt'), link);
  writeFileSync(join(folder, 'routine.json'), routine);
  const forms = join(process.cwd(), 'fixtures', 'forms.json');
  const known = existsSync(forms) ? (JSON.parse(readFileSync(forms, 'utf8')) as Record<string, string>) : {};
  // What is known of a version is never written over: its form must not change.
  writeFileSync(forms, `${JSON.stringify({ ...fingerprints(), ...known }, null, 2)}\n`);
}

void main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
