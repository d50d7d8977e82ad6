import { createHash } from 'node:crypto';
import * as z from 'zod';
import { civilDay, type Routine } from '@/core/plan';
import { plannedOn } from '@/core/plan/plan.testing';
import { writeArchive } from '@/core/formats/archive';
import { linkPart, sharedSchema, sharedText, SHARED_VERSION } from '@/core/formats/shared';
import { copyOf, findInstrument } from '@/core/instruments';
import { simulateTake, steadyPlayer } from '@/core/lab';
import { digestOf } from '@/core/ledger';
import { SCORE_VERSION, scoreSchema } from '@/core/music';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { TAKE_VERSION, takeSchema, type Take } from '@/core/take';
import { archiveParts, VERSIONS } from './archiveOut';
import { asideKind } from './aside';
import { CLOCK } from './clock';
import { DESK } from './desk';
import { cellsKind, entriesKind, META } from './filing';
import { LedgerStore } from './ledgerStore';
import { addPiece, musicKind, pieceSchema } from './musicStore';
import { changePlans, plansKind, sessionsKind, withPlan, withRoutine, writeSession } from './planStore';
import { blockSchema, RunningStore, runningSchema, stretchSchema, type RunningStretch } from './runningStore';
import { changeSettings, settingsKind } from './settings';
import { MapStorage, tabs } from './storage.testing';
import { UNREAD } from './unread';

const RATE = 16_000;
const NAME = 'museum';
const at = (minute: number) => new Date(Date.UTC(2026, 10, 30, 17, minute));
const flute = findInstrument('flute')!;

/** What a version of the program leaves behind, of every kind there is. */
export interface Exhibit {
  /** By key, as it lies in a browser. */
  readonly log: Readonly<Record<string, string>>;
  readonly archive: Uint8Array;
  readonly link: string;
  readonly routine: string;
}

function played(id: string, minute: number): { take: Take; sound: Int16Array } {
  const score = heldNote('flute', { beats: 2 });
  const { take, performance } = simulateTake({
    score,
    instrument: flute,
    seed: minute,
    player: steadyPlayer,
    sampleRate: RATE,
  });
  const sound = Int16Array.from(performance.audio, (sample) => Math.round(32_767 * sample));
  return {
    take: { ...take, id, createdAt: at(minute).toISOString(), audio: { bytes: sound.byteLength } },
    sound,
  };
}

/** A log with a bit of everything, written by the store as it is now. */
export async function exhibit(): Promise<Exhibit> {
  const storage = new MapStorage();
  const tab = tabs().open('one');
  const store = new LedgerStore(storage, NAME, digestOf);
  const draft = async (id: string, minute: number) => {
    const { take, sound } = played(id, minute);
    await store.writeDraft(take, sound, tab);
  };
  await draft('kept', 0);
  await store.keepDraft('kept', 'third reed, cold room');
  await draft('deleted', 2);
  await store.keepDraft('deleted', '');
  await store.deleteTake('deleted', at(3));
  await draft('draft', 4);
  await changeSettings(storage, NAME, {
    level: 'exacting',
    ownInstruments: [{ ...copyOf(flute, 'own-1'), name: 'Old river flute' }],
    exercises: { 'octave-slurs/flute': { tempo: 66 } },
  });
  await addPiece(
    storage,
    { fileName: 'air.musicxml', score: scoreOfFamily('octave-slurs', 'flute'), remark: null },
    at(5),
  );
  const day = plannedOn([], { today: civilDay('2026-11-30') });
  const routine: Routine = { id: 'routine', name: 'Evening', instrumentId: 'flute', blocks: day.blocks };
  await changePlans(storage, NAME, (plans) =>
    withRoutine(withPlan(plans, 'flute', { days: { [day.date]: day } }, day.date), routine),
  );
  await writeSession(storage, NAME, tab, null);
  const running = new RunningStore(storage, NAME, tab);
  const score = scoreOfFamily('octave-slurs', 'flute');
  await running.writeBlock({ score, from: '/exercise/octave-slurs' });
  await running.begin(score, at(6));
  const stretch: RunningStretch = {
    beat: 0,
    place: 1,
    source: { source: 'simulated', sourceName: 'Simulated player', sampleRate: RATE, processing: [] },
    kept: {
      request: {
        sampleRate: RATE,
        a4: 440,
        score,
        instrument: flute,
        gainControlled: false,
        longestSeconds: 60,
        firstBeat: null,
        roundTrip: { seconds: 0, how: 'exact' },
      },
      origin: 0,
      clicks: [],
    },
    heard: null,
  };
  await running.addSound(0, 0, played('running', 7).sound, stretch);
  const chunks: Uint8Array[] = [];
  await writeArchive(
    archiveParts(storage, { withSound: true, onProgress: () => undefined }),
    { createdAt: at(8).toISOString(), versions: VERSIONS, takes: 1 },
    new WritableStream<Uint8Array>({ write: (chunk) => void chunks.push(chunk.slice()) }),
  );
  return {
    log: Object.fromEntries(storage.map),
    archive: new Uint8Array(Buffer.concat(chunks)),
    link: await linkPart({
      goldReed: SHARED_VERSION,
      kind: 'week',
      name: 'A week',
      instrumentId: 'flute',
      days: [day],
    }),
    routine: sharedText({ goldReed: SHARED_VERSION, kind: 'routine', routine }),
  };
}

/** Every kind of thing that is stored or sent, with the version that it says. */
const KINDS: readonly { name: string; version: number; schema: z.ZodType }[] = [
  { name: 'score', version: SCORE_VERSION, schema: scoreSchema },
  { name: 'take', version: TAKE_VERSION, schema: takeSchema },
  ...[settingsKind, plansKind, sessionsKind, musicKind, DESK.kind, entriesKind, cellsKind],
  ...[META.kind, UNREAD.kind, CLOCK.kind, asideKind],
  { name: 'piece', version: 1, schema: pieceSchema([]) },
  { name: 'block', version: 1, schema: blockSchema([]) },
  { name: 'running', version: 1, schema: runningSchema([]) },
  { name: 'stretch', version: 1, schema: stretchSchema },
  { name: 'shared', version: SHARED_VERSION, schema: sharedSchema },
];

/** A print of the form of each kind; a score within it is a score, whatever its own form. */
export function fingerprints(): Record<string, string> {
  return Object.fromEntries(
    KINDS.map(({ name, version, schema }) => {
      const { $defs, ...form } = z.toJSONSchema(schema, { unrepresentable: 'any' });
      const own = name === 'score' ? { form, $defs } : form;
      return [
        `${name} ${version}`,
        createHash('sha256').update(JSON.stringify(own)).digest('hex').slice(0, 16),
      ];
    }),
  );
}
