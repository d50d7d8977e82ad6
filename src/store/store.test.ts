import * as z from 'zod';
import { readRecord, type RecordKind } from '@/core/base';
import { copyOf, findInstrument } from '@/core/instruments';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Take } from '@/core/take';
import { emptyTake } from '@/core/take/takes.testing';
import { LedgerStore } from './ledgerStore';
import { defaultSettings, settingsKind } from './settings';
import { MapStorage } from './storage.testing';

const takeNamed = (id: string, createdAt: string, bytes = 1000): Take =>
  emptyTake({ id, createdAt, audio: { bytes } });

const day = (n: number) => new Date(Date.UTC(2030, 0, n));
let storage: MapStorage;
let store: LedgerStore;
beforeEach(() => {
  storage = new MapStorage();
  store = new LedgerStore(storage);
});

async function keep(id: string, n: number, audio = new Int16Array(500)): Promise<boolean> {
  await store.writeDraft(takeNamed(id, day(n).toISOString(), audio.byteLength), audio);
  return (await store.keepDraft(`remark ${id}`, { ...defaultSettings, audioQuotaMegabytes: 2 })).soundKept;
}

const ids = async () => (await store.readLog()).takes.map((take) => take.id);

describe('takes', () => {
  it('are kept with their sound and remark, newest first', async () => {
    const audio = Int16Array.from({ length: 300_000 }, (_, i) => (i * 7919) % 32_768);
    await keep('a', 1, audio);
    await keep('b', 2);
    expect(await ids()).toEqual(['b', 'a']);
    expect((await store.readTake('a'))?.remark).toBe('remark a');
    expect(Buffer.from((await store.readAudio('a'))!.buffer).equals(Buffer.from(audio.buffer))).toBe(true);
    expect(await store.readDraft()).toBeNull();
  });

  it('can be deleted and had back for a week, with their sound', async () => {
    await keep('a', 1);
    await store.deleteTake('a', day(2));
    expect(await ids()).toEqual([]);
    await store.sweep(day(8));
    await store.undelete('a');
    expect(await ids()).toEqual(['a']);
    await store.deleteTake('a', day(9));
    await store.sweep(day(17));
    await store.undelete('a');
    expect(await ids()).toEqual([]);
    expect(storage.map.size).toBe(0);
  });

  it('are not lost when a draft is discarded, or overtaken by another', async () => {
    await store.writeDraft(takeNamed('a', day(1).toISOString()), null);
    await store.writeDraft(takeNamed('b', day(1).toISOString()), null);
    expect(await store.discardDraft(day(1))).toBe('b');
    await store.undelete('a');
    await store.undelete('b');
    expect((await ids()).sort()).toEqual(['a', 'b']);
  });

  it('lose their sound, not their figures, when there is no room', async () => {
    expect(await keep('a', 1, new Int16Array(900_000))).toBe(true);
    expect(await keep('b', 2, new Int16Array(900_000))).toBe(false);
    expect(await ids()).toEqual(['b', 'a']);
    expect(await store.readAudio('b')).toBeNull();
    expect(await store.use()).toEqual({ audioBytes: 1_800_000, takes: 2 });
  });
});

describe('damage', () => {
  it('is set aside and reported, and hides nothing else', async () => {
    await keep('a', 1);
    storage.map.set('take/torn', '{"version":1,"id"');
    storage.map.set('take/odd', '{"version":1,"id":"odd"}');
    storage.map.set('settings', 'null');
    const log = await store.readLog();
    expect(log.takes.map((take) => take.id)).toEqual(['a']);
    expect(log.damaged.map((record) => record.key).sort()).toEqual(['settings', 'take/odd', 'take/torn']);
    expect(storage.map.get('damaged/take/torn')).toContain('{\\"version\\":1');
    expect(await store.readSettings()).toEqual(defaultSettings);
  });
});

describe('older records', () => {
  const kind: RecordKind<{ version: 3; cents: number }> = {
    name: 'thing',
    version: 3,
    schema: z.object({ version: z.literal(3), cents: z.number() }),
    migrations: {
      1: (r) => ({ semitones: r['tones'] }),
      2: (r) => ({ cents: 100 * Number(r['semitones']) }),
    },
  };
  it('are brought up to date step by step', () => {
    expect(readRecord(kind, '{"version":1,"tones":2}')).toEqual({
      ok: true,
      value: { version: 3, cents: 200 },
    });
  });
  it.each(['{"version":0}', '{"version":4}', '{}', '[]', 'x', '{"version":3,"cents":"a"}'])(
    'are refused when they cannot be read: %s',
    (text) => {
      expect(readRecord(kind, text)).toMatchObject({ ok: false });
    },
  );
});

describe('takes of the first version', () => {
  it('get roles for their notes, and the instrument that they were played on', async () => {
    const score = scoreOfFamily('bends', 'flute');
    const { instrument, ...old } = {
      ...emptyTake({ id: 'old', score }),
      version: 1,
      score: {
        ...score,
        notes: score.notes.map(({ role, open, company, ...note }) => ({
          ...note,
          was: [role, open, company],
        })),
        counts: { measures: ['bend', 'level'], events: [], feeds: score.counts.feeds, exploring: true },
      },
    };
    expect(instrument?.id).toBe('flute');
    storage.map.set('take/old', JSON.stringify(old));
    const take = await store.readTake('old');
    expect(take?.instrument?.id).toBe('flute');
    expect(take?.score.notes.map(({ role }) => role)).toEqual(score.notes.map(({ role }) => role));
    expect(take?.score.counts).toEqual(score.counts);
  });

  it('of an instrument that is not known are kept without one', async () => {
    const score = { ...scoreOfFamily('bends', 'flute'), instrumentId: 'own-lost' };
    storage.map.set('take/lost', JSON.stringify({ ...emptyTake({ id: 'lost', score }), version: 1 }));
    expect((await store.readTake('lost'))?.instrument).toBeNull();
  });
});

test('limits of time that were set in seconds are kept in milliseconds', () => {
  const old = {
    ...defaultSettings,
    version: 4,
    ownLimits: { seamSeconds: 0.12, holdShare: 0.7, centreCents: 4 },
  };
  expect(readRecord(settingsKind, JSON.stringify(old))).toMatchObject({
    ok: true,
    value: { ownLimits: { seamMs: 120, holdPercent: 70, centreCents: 4 } },
  });
});

test('settings of earlier versions are brought up to date, and an instrument of one’s own survives being read', () => {
  const longTone = { instrumentId: 'oboe', written: 72, beats: 6, tempo: 60 };
  const { theme, source, keepAudio, audioQuotaMegabytes } = defaultSettings;
  const first = {
    version: 1,
    theme,
    a4: 442,
    source,
    metronomeSound: false,
    keepAudio,
    audioQuotaMegabytes,
    longTone,
  };
  expect(readRecord(settingsKind, JSON.stringify(first))).toMatchObject({
    ok: true,
    value: {
      version: 6,
      a4: 442,
      instrumentId: 'oboe',
      metronome: { mode: 'sight' },
      exercises: { 'long-tone/oboe': { note: 72, beats: 6 } },
    },
  });
  const mine = copyOf(findInstrument('flute')!, 'own-1');
  const stored = { ...defaultSettings, instrumentId: 'own-1', ownInstruments: [mine] };
  expect(readRecord(settingsKind, JSON.stringify(stored))).toEqual({ ok: true, value: stored });
});
