/** @jest-environment node */
import { digestOf } from '@/core/ledger';
import { zipOf } from '@/core/base/zipped.testing';
import { copyOf, findInstrument } from '@/core/instruments';
import { openArchive, writeArchive } from '@/core/formats/archive';
import { civilDay, type Routine } from '@/core/plan';
import { plannedOn } from '@/core/plan/plan.testing';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { type Take } from '@/core/take';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { importArchive, previewOf, undoImport, type ImportOptions } from './archiveIn';
import { archiveParts, VERSIONS } from './archiveOut';
import { digest } from './digest.testing';
import { LedgerStore } from './ledgerStore';
import { addPiece, readMusic } from './musicStore';
import { changePlans, readPlans, withRoutine } from './planStore';
import { changeSettings, readSettings } from './settings';
import { DyingStorage, FullStorage, MapStorage, tabs } from './storage.testing';

/** Much is packed and unpacked here, on machines of every speed. */
jest.setTimeout(60_000);

const now = new Date('2030-06-01T12:00:00Z');
const tab = tabs().open('here');
const takeOn = (id: string, day: number, bytes: number): Take => ({
  ...asWritten(scoreOfFamily('octave-slurs', 'flute')),
  id,
  createdAt: new Date(Date.UTC(2030, 0, day)).toISOString(),
  remark: '=HYPERLINK("x")',
  audio: bytes > 0 ? { bytes } : null,
});

const { blocks } = plannedOn([], { today: civilDay('2030-06-01') });
const routineNamed = (id: string): Routine => ({ id, name: id, instrumentId: 'flute', blocks });

/** A log of some takes, half of them with sound, a piece of music and an instrument of one's own. */
async function grown(takes: number): Promise<MapStorage> {
  const storage = new MapStorage();
  const log = new LedgerStore(storage, 'test', digestOf);
  for (let i = 0; i < takes; i++) {
    const sound = i % 2 ? null : Int16Array.from({ length: 2000 }, (_, k) => (k * 37 + i) % 9000);
    await log.writeDraft(takeOn(`t${i}`, i + 1, sound?.byteLength ?? 0), sound, tab);
    await log.keepDraft(`t${i}`, '=HYPERLINK("x")');
  }
  await addPiece(storage, { fileName: 'air.mid', score: heldNote('flute'), remark: null }, now);
  await changeSettings(storage, 'test', {
    a4: 443,
    ownInstruments: [copyOf(findInstrument('flute')!, 'own-1')],
  });
  return storage;
}

async function archiveOf(storage: MapStorage, withSound = true): Promise<Blob> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const whole = new Response(readable).blob();
  await writeArchive(
    archiveParts(storage, { withSound, onProgress: () => undefined }),
    { createdAt: now.toISOString(), versions: VERSIONS, takes: 0 },
    writable,
  );
  return whole;
}

async function opened(file: Blob) {
  const archive = await openArchive(file);
  if (!archive.ok) throw new Error(archive.problem);
  return archive.value;
}

const bringIn = async (storage: MapStorage, file: Blob, change: Partial<ImportOptions> = {}) =>
  importArchive({
    storage,
    name: 'test',
    archive: await opened(file),
    mode: 'merge',
    digest,
    onProgress: () => undefined,
    signal: new AbortController().signal,
    now,
    ...change,
  });

/** What a player has, wherever it lies. */
async function whatIsThere(storage: MapStorage) {
  const log = new LedgerStore(storage, 'test', digestOf);
  const { entries } = await log.readEntries(Infinity);
  const takes = await Promise.all(entries.map(({ id }) => log.readTake(id)));
  const sounds = await Promise.all(entries.map(({ id }) => log.readAudio(id)));
  const { a4, ownInstruments } = await readSettings(storage);
  return {
    entries,
    takes,
    sounds: sounds.map((sound) => sound && [...sound]),
    cells: await log.readCells('flute'),
    music: await readMusic(storage),
    own: ownInstruments,
    a4,
  };
}

describe('an archive', () => {
  it('brings back everything, on a device that has nothing', async () => {
    const here = await grown(6);
    const file = await archiveOf(here);
    const there = new MapStorage();
    expect(await previewOf(there, await opened(file))).toMatchObject({
      takes: 6,
      fresh: 6,
      withSound: 3,
      pieces: 1,
      hasSettings: true,
    });
    const done = await bringIn(there, file, { mode: 'replace' });
    expect(done).toMatchObject({ ok: true, value: { unread: 0 } });
    expect(await whatIsThere(there)).toEqual(await whatIsThere(here));
  });

  it('is merged by id, once, and can be undone', async () => {
    const file = await archiveOf(await grown(6));
    const there = await grown(3);
    const log = new LedgerStore(there, 'test', digestOf);
    await log.changeRemark('t1', 'mine');
    const before = await whatIsThere(there);
    const done = await bringIn(there, file);
    if (!done.ok) throw new Error(done.problem);
    expect([...done.value.added].sort()).toEqual(['t3', 't4', 't5']);
    expect((await log.readTake('t1'))?.remark).toBe('mine');
    expect(await bringIn(there, file)).toMatchObject({ ok: true, value: { added: [] } });
    await undoImport(there, 'test', done.value, digest, now);
    expect((await whatIsThere(there)).entries).toEqual(before.entries);
    expect((await log.readBin()).map(({ id }) => id).sort()).toEqual(['t3', 't4', 't5']);
  });

  it('replaces what is here, which then lies in the bin, and comes back when that is undone', async () => {
    const file = await archiveOf(await grown(2));
    const there = new MapStorage();
    const log = new LedgerStore(there, 'test', digestOf);
    await log.writeDraft(takeOn('old', 3, 0), null, tab);
    await log.keepDraft('old', 'of before');
    // The same take, and more has been said of it since.
    await log.writeDraft(takeOn('t1', 2, 0), null, tab);
    await log.keepDraft('t1', 'changed since');
    const before = await whatIsThere(there);
    const done = await bringIn(there, file, { mode: 'replace' });
    if (!done.ok) throw new Error(done.problem);
    expect((await whatIsThere(there)).entries.map(({ id }) => id)).toEqual(['t1', 't0']);
    expect((await whatIsThere(there)).a4).toBe(443);
    await undoImport(there, 'test', done.value, digest, now);
    expect(await whatIsThere(there)).toEqual(before);
  });

  it('is taken back without what came after it: settings, instruments and routines of since stay', async () => {
    const here = await grown(2);
    await changePlans(here, 'test', (plans) => withRoutine(plans, routineNamed('theirs')));
    const file = await archiveOf(here);
    for (const mode of ['merge', 'replace'] as const) {
      const there = new MapStorage();
      await changeSettings(there, 'test', { a4: 441, naming: 'german' });
      const done = await bringIn(there, file, { mode });
      if (!done.ok) throw new Error(done.problem);
      await changePlans(there, 'test', (plans) => withRoutine(plans, routineNamed('since')));
      await changeSettings(there, 'test', ({ ownInstruments }) => ({
        naming: 'fixed-do',
        ownInstruments: [...ownInstruments, copyOf(findInstrument('oboe')!, 'own-since')],
      }));
      await undoImport(there, 'test', done.value, digest, now);
      const { a4, naming, ownInstruments } = await readSettings(there);
      expect([a4, naming, ownInstruments.map(({ id }) => id)]).toEqual([441, 'fixed-do', ['own-since']]);
      expect((await readPlans(there)).routines.map(({ id }) => id)).toEqual(['since']);
    }
  });

  it('that meets a full disk, wherever it does, leaves what was there', async () => {
    const file = await archiveOf(await grown(3));
    const before = await grown(2);
    const log = (storage: MapStorage) => new LedgerStore(storage, 'test', digestOf).readEntries(Infinity);
    const stood = await whatIsThere(before);
    for (const mode of ['merge', 'replace'] as const)
      for (let room = 0; ; room++) {
        const storage = new FullStorage(new Map(before.map), room);
        const done = await bringIn(storage, file, { mode });
        if (done.ok) {
          expect(room).toBeGreaterThan(2);
          break;
        }
        expect(done.problem).toMatch(/no room.*your log is as it was/);
        expect((await log(storage)).entries).toEqual(stood.entries);
        expect(await whatIsThere(storage)).toEqual(stood);
        expect(await new LedgerStore(storage, 'test', digestOf).readBin()).toEqual([]);
      }
  });

  it('keeps what it brings while the bin, where the same takes lie, is emptied', async () => {
    const there = await grown(4);
    const file = await archiveOf(there);
    const log = new LedgerStore(there, 'test', digestOf);
    for (const id of ['t0', 't1', 't2', 't3']) await log.deleteTake(id, now);
    await Promise.all([log.emptyBin(), bringIn(there, file), log.emptyBin()]);
    const { takes, sounds } = await whatIsThere(there);
    expect(takes.map((take) => take?.id).sort()).toEqual(['t0', 't1', 't2', 't3']);
    expect(sounds.filter((sound) => sound !== null)).toHaveLength(2);
  });

  it('without sound says of its takes that they have none', async () => {
    const file = await archiveOf(await grown(2), false);
    const there = new MapStorage();
    await bringIn(there, file);
    expect((await whatIsThere(there)).takes.map((take) => take?.audio)).toEqual([null, null]);
  });

  it('has tables whose cells are harmless', async () => {
    const archive = await opened(await archiveOf(await grown(2)));
    for (const [path, heading] of [
      ['takes.csv', 'id,played at,exercise'],
      ['notes.csv', 'take,note,start (s)'],
    ] as const) {
      const read = await archive.read(path);
      const table = read.ok ? new TextDecoder().decode(read.value) : '';
      expect(table.startsWith(heading)).toBe(true);
      expect(table.split(/\r\n/).length).toBeGreaterThan(2);
      expect(table).not.toMatch(/(^|,|")[=+@]/m);
    }
    const takes = await archive.read('takes.csv');
    expect(takes.ok && new TextDecoder().decode(takes.value)).toContain("'=HYPERLINK");
  });
});

describe('what is no archive, or a damaged one', () => {
  const zipped = async (...files: Parameters<typeof zipOf>) =>
    new Blob([(await zipOf(...files)) as BlobPart]);
  const manifest = (text: string) => zipped({ 'manifest.json': text });
  it.each([
    ['text', new Blob(['hello']), /no archive of Gold Reed, or it is damaged/],
    ['a zip of other things', zipped({ 'a.exe': 'x' }), /other things/],
    ['a zip without a manifest', zipped({ 'a.json': '{}' }), /no manifest/],
    ['a path that climbs', zipped({ '../a.json': '{}' }), /other things|damaged/],
    ['another program’s', manifest('{"schema":"other"}'), /no archive of Gold Reed/],
    ['a newer one’s', manifest('{"schema":"gold-reed/archive@2"}'), /newer Gold Reed/],
    ['a manifest that is torn', manifest('{"schema'), /damaged/],
    ['a bomb', zipped({ 'a.json': new Uint8Array(70_000_000) }), /unpacks to/],
  ])('%s is refused, and why is said', async (_, file, words) => {
    const archive = await openArchive(await file);
    expect(archive).toMatchObject({ ok: false, problem: expect.stringMatching(words) as string });
  });

  it('damage anywhere is found before anything is changed', async () => {
    const file = new Uint8Array(await (await archiveOf(await grown(3))).arrayBuffer());
    for (let at = 40; at < file.length; at += Math.floor(file.length / 23)) {
      const damaged = file.slice();
      damaged[at]! ^= 0x55;
      const there = await grown(1);
      const before = new Map(there.map);
      const archive = await openArchive(new Blob([damaged]));
      if (!archive.ok) continue;
      const done = await bringIn(there, new Blob([damaged]));
      if (done.ok) continue;
      expect(there.map).toEqual(before);
    }
  });

  it('a page that dies while it is brought in leaves whole takes only, and it can be brought in again', async () => {
    const file = await archiveOf(await grown(4));
    const whole = new MapStorage();
    await bringIn(whole, file);
    for (let writes = 0; writes < 7; writes += 3) {
      const map = new Map<string, string>();
      await bringIn(new DyingStorage(map, writes), file).catch(() => undefined);
      const { entries, takes, sounds } = await whatIsThere(new MapStorage(map));
      takes.forEach((take, i) => {
        expect(take?.id).toBe(entries[i]!.id);
        if (take?.audio) expect(sounds[i]).toHaveLength(take.audio.bytes / 2);
      });
      await bringIn(new MapStorage(map), file);
      expect((await whatIsThere(new MapStorage(map))).entries).toEqual((await whatIsThere(whole)).entries);
    }
  });

  it('that is stopped says so', async () => {
    const stop = new AbortController();
    stop.abort();
    const done = await bringIn(new MapStorage(), await archiveOf(await grown(1)), { signal: stop.signal });
    expect(done).toMatchObject({ ok: false, problem: 'it was stopped; nothing was changed' });
  });
});
