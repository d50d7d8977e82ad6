/** @jest-environment node */
import { digestOf } from '@/core/ledger';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { civilDay } from '@/core/plan';
import { plannedOn } from '@/core/plan/plan.testing';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { readAside, setAside } from './aside';
import { keepUp } from './keptUp.testing';
import { LedgerStore } from './ledgerStore';
import { addPiece, readMusic } from './musicStore';
import { changePlans, readPlans, withRoutine } from './planStore';
import { MapStorage, tabs } from './storage.testing';
import { isUpkeepDue } from './upkeep';

const now = new Date('2030-06-01T12:00:00Z');
const { blocks } = plannedOn([], { today: civilDay('2030-06-01') });
const score = scoreOfFamily('octave-slurs', 'flute');

/** A log with one take of each standing, a routine and a piece. */
async function lived(): Promise<MapStorage> {
  const storage = new MapStorage();
  const tab = tabs().open('here');
  const log = new LedgerStore(storage, 'test', digestOf);
  const draft = (id: string) =>
    log.writeDraft(
      { ...asWritten(score), id, createdAt: new Date(now.getTime() - 1000).toISOString() },
      null,
      tab,
    );
  await draft('kept');
  await log.keepDraft('kept', '');
  await draft('deleted');
  await log.keepDraft('deleted', '');
  await log.deleteTake('deleted', now);
  await draft('discarded');
  await log.discardDraft('discarded', now);
  await draft('fresh');
  await changePlans(storage, 'test', (plans) =>
    withRoutine(plans, { id: 'evening', name: 'Evening', instrumentId: 'flute', blocks }),
  );
  await addPiece(storage, { fileName: 'air.mid', score, remark: null }, now);
  return storage;
}

async function openedAnew(storage: MapStorage) {
  await setAside(storage, 'test', now);
  const due = await isUpkeepDue(storage, now);
  await keepUp(storage, now);
  const log = new LedgerStore(storage, 'test', digestOf);
  return {
    log,
    due,
    rows: (await log.readEntries(Infinity)).entries.map(({ id }) => id),
    bin: (await log.readBin()).map(({ id, why }) => `${id} ${why}`).sort(),
  };
}

const DAMAGES: readonly [string, (text: string) => string][] = [
  ['cut', (text) => text.slice(0, text.length / 2)],
  ['emptied', () => ''],
  ['of a version to come', (text) => text.replace(/"version":\d+/, '"version":99')],
];

describe.each(DAMAGES)('a record that is %s', (_, damage) => {
  it.each(['desk', 'plans', 'music', 'meta', 'unread', 'sessions'])(
    'is put aside whole, told in words, and the rest goes on: %s',
    async (key) => {
      const storage = await lived();
      const text = damage(storage.map.get(key) ?? '{"version":1}');
      storage.map.set(key, text);
      const { rows, bin, log } = await openedAnew(storage);
      // Nothing comes back that was thrown away, and nothing that was kept is lost.
      expect(rows).toEqual(['kept']);
      expect(bin).toEqual(
        key === 'desk'
          ? ['deleted found', 'discarded found', 'fresh found']
          : ['deleted deleted', 'discarded discarded'],
      );
      const aside = await readAside(storage);
      expect(aside.map((each) => each.text)).toEqual([text]);
      expect(aside[0]!.words).toMatch(/could not be read/);
      expect((await readPlans(storage)).routines).toHaveLength(key === 'plans' ? 0 : 1);
      expect((await readMusic(storage)).pieces).toHaveLength(key === 'music' ? 0 : 1);
      await addPiece(storage, { fileName: 'next.mid', score, remark: null }, now);
      await changePlans(storage, 'test', (plans) => plans);
      expect(await log.undelete('deleted')).toBe(true);
      // Opened once more all is well, and nothing is said twice.
      const again = await openedAnew(storage);
      expect([again.rows.sort(), (await readAside(storage)).length]).toEqual([['deleted', 'kept'], 1]);
    },
  );

  it.each(['entries/flute/2030-06', 'cells/flute/2030-06'])(
    'is made again from the takes, on the next opening: %s',
    async (key) => {
      const storage = await lived();
      const { log } = await openedAnew(storage);
      const told = await log.readCells('flute');
      storage.map.set(key, damage(storage.map.get(key)!));
      const { due, rows, bin } = await openedAnew(storage);
      expect(due).toBe(true);
      expect(rows).toEqual(['kept']);
      expect(bin).toEqual(['deleted deleted', 'discarded discarded']);
      expect(await log.readCells('flute')).toEqual(told);
    },
  );
});

it('a log that is whole is not looked through again', async () => {
  const storage = await lived();
  await openedAnew(storage);
  expect(await isUpkeepDue(storage, now)).toBe(false);
  storage.map.delete('entries/flute/2030-06');
  expect(await isUpkeepDue(storage, now)).toBe(true);
});
