/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { openArchive } from '@/core/formats/archive';
import { readLink, readShared } from '@/core/formats/shared';
import { digestOf } from '@/core/ledger';
import { importArchive } from './archiveIn';
import { readAside } from './aside';
import { digest } from './digest.testing';
import { openedWhole } from './keptUp.testing';
import { LedgerStore } from './ledgerStore';
import { fingerprints } from './museum.testing';
import { readMusic } from './musicStore';
import { readPlans } from './planStore';
import { RunningStore } from './runningStore';
import { readSettings, settingsProblem } from './settings';
import { MapStorage, tabs } from './storage.testing';
import { readUnread } from './unread';

const FIXTURES = join(__dirname, '..', '..', 'fixtures');
const releases = readdirSync(FIXTURES, { withFileTypes: true }).flatMap((each) =>
  each.isDirectory() ? [each.name] : [],
);
const NOW = new Date('2026-12-05T09:00:00Z');
jest.setTimeout(60_000);

/** The browser's store as a release left it, opened by the program of now. */
async function opened(release: string) {
  const packed = readFileSync(join(FIXTURES, release, 'log.json.gz'));
  const log = JSON.parse(gunzipSync(packed).toString()) as Record<string, string>;
  const storage = new MapStorage(new Map(Object.entries(log)));
  await openedWhole(storage, NOW);
  const tab = tabs().open('later');
  const store = new LedgerStore(storage, 'test', digestOf);
  return { storage, store, tab, running: new RunningStore(storage, 'test', tab) };
}

describe.each(releases)('what release %s left', (release) => {
  it('is all there: takes with their sound, draft, bin, music, settings, plans, the block that was cut short', async () => {
    const { storage, store, tab, running } = await opened(release);
    const { entries } = await store.readEntries(Infinity);
    expect(entries.length).toBeGreaterThan(0);
    for (const { id, audioBytes } of entries) {
      expect((await store.readTake(id))?.notes.length).toBeGreaterThan(0);
      const sound = await store.readAudio(id);
      expect(sound?.byteLength).toBe(audioBytes);
    }
    const loudest = await store.readAudio(entries.at(-1)!.id);
    expect(loudest!.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)).toBeGreaterThan(300);
    const [binned] = await store.readBin();
    await expect(store.undelete(binned!.id)).resolves.toBe(true);
    expect((await store.readDraft(tab))?.notes.length).toBeGreaterThan(0);
    const { pieces, unread } = await readMusic(storage);
    expect([pieces.length, unread]).toEqual([1, []]);
    expect(await settingsProblem(storage)).toBeNull();
    const { level, ownInstruments } = await readSettings(storage);
    expect([level, ownInstruments.length]).toEqual(['exacting', 1]);
    expect((await running.readBlock())?.score.notes.length).toBeGreaterThan(0);
    const left = await running.readRunning();
    expect(left?.stretches[0]?.audio.length).toBeGreaterThan(1000);
    expect(left?.stretches[0]?.kept.request.instrument.id).toBe('flute');
    expect([await readUnread(storage), await readAside(storage)]).toEqual([[], []]);
  });
});

/** The first release wrote no files. */
const writing = releases.filter((release) => readdirSync(join(FIXTURES, release)).includes('routine.json'));

describe.each(writing)('what release %s wrote', (release) => {
  it('comes in from its archive, link and routine', async () => {
    const file = (name: string) => readFileSync(join(FIXTURES, release, name));
    const archive = await openArchive(new Blob([file('log.goldreed.zip')]));
    if (!archive.ok) throw new Error(archive.problem);
    const storage = new MapStorage();
    const done = await importArchive({
      storage,
      name: 'test',
      archive: archive.value,
      mode: 'merge',
      digest,
      onProgress: () => undefined,
      signal: new AbortController().signal,
      now: NOW,
    });
    expect(done).toMatchObject({ ok: true, value: { added: ['kept'], unread: 0, unreadPieces: 0 } });
    expect((await readMusic(storage)).pieces).toHaveLength(1);
    expect((await readPlans(storage)).routines).toHaveLength(1);
    expect(await readLink(file('link.txt').toString())).toMatchObject({ ok: true, value: { kind: 'week' } });
    expect(readShared(file('routine.json').toString())).toMatchObject({ ok: true });
  });
});

test('what is stored has the form that its version had when it was released', () => {
  // Where this fails: raise the version of what has changed, write its migration, and at the release `npm run museum -- NAME`.
  const known = JSON.parse(readFileSync(join(FIXTURES, 'forms.json'), 'utf8')) as Record<string, string>;
  expect(fingerprints()).toEqual(
    Object.fromEntries(Object.keys(fingerprints()).map((name) => [name, known[name]])),
  );
});
