import { copyOf, findInstrument } from '@/core/instruments';
import { digestOf, unpacked } from '@/core/ledger';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import type { Take } from '@/core/take';
import { emptyTake } from '@/core/take/takes.testing';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { readDesk } from './desk';
import type { Clock } from './clock';
import { LedgerStore } from './ledgerStore';
import { changeSettings, defaultSettings, readSettings, settingsProblem } from './settings';
import { DyingStorage, Killed, MapStorage, tabs } from './storage.testing';
import { toldPlainly, type Storage } from './storage';

const takeNamed = (id: string, createdAt: string, bytes = 1000): Take =>
  emptyTake({ id, createdAt, audio: { bytes } });

const clockAt = (now: Date): Clock => ({ now, newest: null, jumped: null });
const day = (n: number) => new Date(Date.UTC(2030, 0, n));
const open = tabs();
const here = open.open('here');
let storage: MapStorage;
let store: LedgerStore;
beforeEach(() => {
  storage = new MapStorage();
  store = new LedgerStore(storage, 'test', digestOf);
});

async function keep(id: string, n: number, audio = new Int16Array(500)): Promise<boolean> {
  await store.writeDraft(takeNamed(id, day(n).toISOString(), audio.byteLength), audio, here);
  return (await store.keepDraft(id, `remark ${id}`)).soundKept;
}

const idsIn = async (log: LedgerStore) => (await log.readEntries(Infinity)).entries.map(({ id }) => id);
const ids = () => idsIn(store);

describe('takes', () => {
  it('are kept with their sound and remark, newest first', async () => {
    const audio = Int16Array.from({ length: 300_000 }, (_, i) => (i * 7919) % 32_768);
    await keep('a', 1, audio);
    await keep('b', 2);
    expect(await ids()).toEqual(['b', 'a']);
    expect((await store.readTake('a'))?.remark).toBe('remark a');
    expect(Buffer.from((await store.readAudio('a'))!.buffer).equals(Buffer.from(audio.buffer))).toBe(true);
    expect(await store.readDraft(here)).toBeNull();
  });

  it('come back as they were, curves and tuning included', async () => {
    const score = scoreOfFamily('octave-slurs', 'flute');
    const take = asWritten(score, { events: [{ group: 1, kind: 'gap', after: 0.01 }] });
    const offsets = Array.from({ length: 128 }, (_, i) => (i % 12) - 5.5);
    const played = { ...take, id: 'a', conditions: { ...take.conditions, offsets } };
    await store.writeDraft(played, null, here);
    await store.keepDraft('a', '');
    expect(await store.readTake('a')).toEqual({ ...played, audio: null });
  });

  it('are the very same rows until one is kept, changed or goes', async () => {
    await keep('a', 1);
    await keep('b', 40);
    const instrumentId = takeNamed('a', '').score.instrumentId;
    const rows = () => store.readPlayed(instrumentId);
    const before = await rows();
    expect(before.map(({ entry }) => entry.id)).toEqual(['a', 'b']);
    expect(await rows()).toBe(before);
    await keep('c', 41);
    const after = await rows();
    expect(after.map(({ entry }) => entry.id)).toEqual(['a', 'b', 'c']);
    expect(await rows()).toBe(after);
    await store.deleteTake('b', day(42));
    expect((await rows()).map(({ entry }) => entry.id)).toEqual(['a', 'c']);
  });

  it('are filed by instrument and month, and found there', async () => {
    for (const [id, n] of [
      ['a', 1],
      ['b', 40],
      ['c', 41],
    ] as const)
      await keep(id, n);
    await store.writeDraft(
      emptyTake({ id: 'oboe', createdAt: day(42).toISOString(), score: heldNote('oboe') }),
      null,
      here,
    );
    await store.keepDraft('oboe', '');
    expect([...storage.map.keys()].filter((key) => key.startsWith('entries/')).sort()).toEqual([
      'entries/flute/2030-01',
      'entries/flute/2030-02',
      'entries/oboe/2030-02',
    ]);
    expect((await store.readEntries(1)).entries.map(({ id }) => id)).toEqual(['oboe', 'c', 'b']);
    expect((await store.readEntries(1)).total).toBe(4);
    expect((await store.findEntry('flute', ({ id }) => id !== 'c'))?.id).toBe('b');
    expect(await store.use()).toEqual({ audioBytes: 3000, takes: 4 });
  });

  it('can be deleted and had back for a week, with their sound and what they tell of the instrument', async () => {
    const score = scoreOfFamily('octave-slurs', 'flute');
    const played = { ...asWritten(score), id: 'a', createdAt: day(1).toISOString(), audio: { bytes: 8 } };
    await store.writeDraft(played, new Int16Array(4), here);
    await store.keepDraft('a', '');
    const told = await store.readCells('flute');
    expect(unpacked(told['a']!).crossings.length).toBeGreaterThan(0);
    await store.deleteTake('a', day(2));
    expect(await ids()).toEqual([]);
    expect(await store.readCells('flute')).toEqual({});
    expect((await store.readBin()).map(({ id, why }) => [id, why])).toEqual([['a', 'deleted']]);
    await store.sweep(clockAt(day(8)));
    await expect(store.undelete('a')).resolves.toBe(true);
    expect(await ids()).toEqual(['a']);
    expect(await store.readCells('flute')).toEqual(told);
    await store.deleteTake('a', day(9));
    await store.sweep(clockAt(day(17)));
    await store.sweep(clockAt(day(18)));
    await expect(store.undelete('a')).resolves.toBe(false);
    expect([...storage.map.keys()].filter((key) => /^(take|trace|audio)\//.test(key))).toEqual([]);
  });

  it('survive in the bin a clock that is wrong for one opening, ahead or back', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString()), null, here);
    await store.discardDraft('a', day(2));
    // Eight days ahead for once; then right again, and still no week has gone.
    for (const date of [10, 3, 4, 8]) await store.sweep(clockAt(day(date)));
    expect((await store.readBin()).map(({ id }) => id)).toEqual(['a']);
    // However often it is opened while the clock is known to have jumped.
    for (const date of [300, 301, 302]) await store.sweep({ ...clockAt(day(date)), jumped: 'ahead' });
    expect(await store.undelete('a')).toBe(true);
  });

  it('that were passed over or discarded lie in the bin, and can be had back', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString()), null, here);
    await store.writeDraft(takeNamed('b', day(1).toISOString()), null, here);
    await store.discardDraft('b', day(1));
    expect((await store.readBin()).map(({ id, why }) => [id, why])).toEqual([
      ['b', 'discarded'],
      ['a', 'again'],
    ]);
    await store.undelete('a');
    await store.undelete('b');
    expect((await ids()).sort()).toEqual(['a', 'b']);
  });

  it('are gone for good, with their sound, when the bin is emptied; what is in the log stays', async () => {
    await keep('a', 1, new Int16Array(400));
    await store.writeDraft(takeNamed('b', day(1).toISOString()), new Int16Array(400), here);
    await store.discardDraft('b', day(1));
    await store.emptyBin();
    expect(await store.readBin()).toEqual([]);
    await expect(store.undelete('b')).resolves.toBe(false);
    expect([...storage.map.keys()].filter((key) => key.includes('/b'))).toEqual([]);
    expect(await ids()).toEqual(['a']);
    expect((await store.readAudio('a'))?.length).toBe(400);
  });

  it('lose their sound, not their figures, when there is no room', async () => {
    await changeSettings(storage, 'test', { audioQuotaMegabytes: 10 });
    expect(await keep('a', 1, new Int16Array(4_500_000))).toBe(true);
    expect(await keep('b', 2, new Int16Array(900_000))).toBe(false);
    expect(await ids()).toEqual(['b', 'a']);
    expect(await store.readAudio('b')).toBeNull();
    expect(await store.use()).toEqual({ audioBytes: 9_000_000, takes: 2 });
  });

  it('show a changed remark in the log and on their page', async () => {
    await keep('a', 1);
    await store.changeRemark('a', 'softer reed');
    expect((await store.readEntries(1)).entries[0]?.remark).toBe('softer reed');
    expect((await store.readTake('a'))?.remark).toBe('softer reed');
  });
});

describe('two tabs', () => {
  it('keep each its own take, under its own remark', async () => {
    const there = open.open('there');
    await store.writeDraft(takeNamed('mine', day(1).toISOString()), null, here);
    await store.writeDraft(takeNamed('yours', day(1).toISOString()), null, there);
    expect((await store.readDraft(here))?.id).toBe('mine');
    expect((await store.readDraft(there))?.id).toBe('yours');
    await Promise.all([store.keepDraft('mine', 'A'), store.keepDraft('yours', 'B')]);
    const remarks = (await store.readEntries(9)).entries.map(({ id, remark }) => `${id} ${remark}`);
    expect(remarks.sort()).toEqual(['mine A', 'yours B']);
    expect(await store.readBin()).toEqual([]);
    open.close('there');
  });

  it('find what was left in a tab that is gone, and keep it once', async () => {
    const there = open.open('there');
    await store.writeDraft(takeNamed('left', day(1).toISOString()), null, there);
    expect(await store.readDraft(here)).toBeNull();
    open.close('there');
    expect((await store.readDraft(here))?.id).toBe('left');
    await Promise.all([store.keepDraft('left', 'once'), store.keepDraft('left', 'twice')]);
    expect((await store.readEntries(9)).entries.map(({ remark }) => remark)).toEqual(['once']);
  });

  it('do not keep what the other has discarded without a word', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString()), null, here);
    await store.discardDraft('a', day(1));
    await expect(store.keepDraft('a', '')).rejects.toThrow(/in the bin/);
  });

  it('change different settings at once', async () => {
    await Promise.all([
      changeSettings(storage, 'test', { a4: 442 }),
      changeSettings(storage, 'test', { level: 'exacting' }),
    ]);
    expect(await readSettings(storage)).toMatchObject({ a4: 442, level: 'exacting' });
  });
});

/** All that is so of a log, whatever happened to the page that wrote it. */
async function isSound(map: Map<string, string>): Promise<Set<string>> {
  const log = new LedgerStore(new MapStorage(map), 'test', digestOf);
  const kept = await idsIn(log);
  const binned = (await log.readBin()).map(({ id }) => id);
  const draft = (await log.readDraft(open.open('later')))?.id;
  open.close('later');
  const stands = [...kept, ...binned, ...(draft ? [draft] : [])];
  // Each take stands in one place only.
  expect(new Set(stands).size).toBe(stands.length);
  for (const id of stands) {
    const take = await log.readTake(id);
    expect(take).not.toBeNull();
    const sound = await log.readAudio(id);
    if (take!.audio) expect(sound?.byteLength).toBe(take!.audio.bytes);
  }
  expect(Object.keys(await log.readCells('flute')).sort()).toEqual([...kept].sort());
  return new Set(stands);
}

/** Everything that a page does with takes, told when each step was seen to be done. */
async function practise(device: Storage, done: (step: string) => void): Promise<void> {
  const log = new LedgerStore(device, 'test', digestOf);
  const tab = open.open('dying');
  const play = (id: string) =>
    log.writeDraft(takeNamed(id, day(3).toISOString(), 8000), new Int16Array(4000), tab);
  await play('a');
  await log.keepDraft('a', 'kept');
  done('a');
  await play('again');
  await play('b');
  await log.keepDraft('b', '');
  done('b');
  await log.deleteTake('a', day(3));
  await log.undelete('a');
  await play('c');
  await log.discardDraft('c', day(3));
  await play('d');
  await log.changeRemark('b', 'later');
  await log.keepDraft('d', '');
  done('d');
}

describe('a page that dies', () => {
  it('at any write of any of these leaves every kept take, its sound, and one place for each', async () => {
    for (let writes = 0; ; writes++) {
      const map = new Map<string, string>();
      const seen: string[] = [];
      const died = await practise(new DyingStorage(map, writes), (step) => seen.push(step)).then(
        () => false,
        (error: unknown) => error instanceof Killed,
      );
      open.close('dying');
      const stands = await isSound(map);
      for (const id of seen) expect(stands).toContain(id);
      if (!died) {
        expect(writes).toBeGreaterThan(15);
        break;
      }
    }
  });

  it('while the bin is emptied leaves nothing half removed', async () => {
    for (let writes = 0; writes < 6; writes++) {
      const map = new Map<string, string>();
      const log = new LedgerStore(new MapStorage(map), 'test', digestOf);
      await log.writeDraft(takeNamed('a', day(1).toISOString(), 800), new Int16Array(400), here);
      await log.discardDraft('a', day(1));
      await new LedgerStore(new DyingStorage(map, writes), 'test', digestOf)
        .sweep(clockAt(day(30)))
        .then(() => new LedgerStore(new DyingStorage(map, writes), 'test', digestOf).sweep(clockAt(day(31))))
        .catch(() => undefined);
      await isSound(map);
      for (const date of [31, 32]) await log.sweep(clockAt(day(date)));
      expect([...map.keys()]).toEqual(['desk']);
    }
  });
});

describe('a full disk', () => {
  it('is told in plain words, and nothing is lost', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString()), null, here);
    const full: Storage = toldPlainly({
      ...storage,
      setMany: () => Promise.reject(new Error('QuotaExceededError')),
    });
    const log = new LedgerStore(full, 'test', digestOf);
    await expect(log.keepDraft('a', '')).rejects.toThrow(/no room left.*nothing was changed/);
    await expect(log.discardDraft('a', day(1))).rejects.toThrow(/no room left/);
    await expect(changeSettings(full, 'test', { a4: 442 })).rejects.toThrow(/no room left/);
    expect((await store.readDraft(here))?.id).toBe('a');
  });

  it('is made free by emptying the bin', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString(), 800), new Int16Array(400), here);
    await store.discardDraft('a', day(1));
    const held = () => [...storage.map.values()].reduce((sum, text) => sum + text.length, 0);
    const most = held();
    const full: Storage = toldPlainly({
      ...storage,
      // Not one character more than lies there already.
      setMany: (entries) =>
        held() + Object.values(entries).join('').length > most
          ? Promise.reject(new Error('QuotaExceededError'))
          : storage.setMany(entries),
    });
    await new LedgerStore(full, 'test', digestOf).emptyBin();
    expect([...storage.map.keys()]).toEqual(['desk']);
    expect((await readDesk(storage)).bin).toEqual([]);
  });
});

describe('settings', () => {
  it('of a newer Gold Reed are left as they are, and changes made meanwhile are kept beside them', async () => {
    const newer = JSON.stringify({ ...defaultSettings, version: 99, a4: 415, tomorrow: true });
    storage.map.set('settings', newer);
    expect(await settingsProblem(storage)).toMatch(/newer Gold Reed/);
    await changeSettings(storage, 'test', { a4: 443 });
    await changeSettings(storage, 'test', { level: 'exacting' });
    expect(storage.map.get('settings')).toBe(newer);
    expect(await readSettings(storage)).toMatchObject({ a4: 443, level: 'exacting' });
  });

  it('that are damaged are told of, and kept when others are written', async () => {
    storage.map.set('settings', '{"version":6,"a4":');
    expect(await settingsProblem(storage)).toMatch(/damaged/);
    await changeSettings(storage, 'test', { a4: 443 });
    expect(await settingsProblem(storage)).toBeNull();
    expect(storage.map.get('settings/damaged')).toBe('{"version":6,"a4":');
  });

  it('keep an instrument of one’s own', async () => {
    const mine = copyOf(findInstrument('flute')!, 'own-1');
    await changeSettings(storage, 'test', { instrumentId: 'own-1', ownInstruments: [mine] });
    expect((await readSettings(storage)).ownInstruments).toEqual([mine]);
  });
});
