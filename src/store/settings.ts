import * as z from 'zod';
import { readRecord, type RecordKind } from '@/core/base';
import { ownLimitsSchema } from '@/core/verdict';
import { findInstrument, instrumentSchema, type Instrument } from '@/core/instruments';
import { LEVELS, readAsSchema } from '@/core/music';
import { setupSchema, UNTOLD } from '@/core/take';
import { offsetsOf, temperaments, type Offsets } from '@/core/tuning';
import { exclusively } from './exclusively';
import type { Storage } from './storage';

export const SETTINGS_VERSION = 13;

export const settingsSchema = z.object({
  version: z.literal(SETTINGS_VERSION),
  theme: z.enum(['system', 'paper', 'stage']),
  a4: z.number().min(380).max(500),
  source: z.enum(['microphone', 'simulated', 'file']),
  /** Where the simulated player is heard. */
  simulatedIn: z.enum(['dry', 'living']),
  metronome: z.object({
    mode: z.enum(['sound', 'sight', 'off']),
    /** Clicks a beat. */
    subdivision: z.number().int().min(1).max(4),
    accents: z.boolean(),
  }),
  drone: z.object({ sound: z.enum(['reed', 'pipe', 'string']), volume: z.number().min(0).max(1) }),
  /** Metronome and drone do not reach the microphone. */
  headphones: z.boolean(),
  /** Whether the count-in begins by itself, or waits for a note. */
  startOn: z.enum(['key', 'sound']),
  /** Loudspeaker to microphone, by the microphone's name. @property measuredAt ISO 8601; null: before days were noted. */
  roundTrips: z.record(z.string(), z.object({ seconds: z.number(), measuredAt: z.string().nullable() })),
  school: z.enum(['air', 'support', 'shape']),
  /** Thresholds that the player has set otherwise than is usual for the level. */
  ownLimits: ownLimitsSchema,
  /** Carried along from take to take. */
  setup: setupSchema,
  /** What the player says of reeds and set-ups, by the names that takes give them. */
  reeds: z.record(z.string(), z.object({ about: z.string().max(400), retired: z.boolean() })),
  keepAudio: z.boolean(),
  audioQuotaMegabytes: z.number().min(10).max(2000),
  /** How often the player wants to be reminded to export the log. */
  exportEvery: z.enum(['never', 'sunday', 'month']),
  /** ISO 8601; null: it never was. */
  lastExportAt: z.string().nullable(),
  /** The first questions have been answered, or passed over. */
  welcomed: z.boolean(),
  /** What is being played. */
  instrumentId: z.string(),
  level: z.enum(LEVELS),
  naming: z.enum(['english', 'german', 'fixed-do']),
  readAs: readAsSchema,
  temperament: z.enum(['equal', 'just', 'pythagorean', 'meantone', 'well-quarter', 'well-sixth', 'own']),
  /** Pitch class of the temperament's tonic, sounding. */
  tonic: z.number().int().min(0).max(11),
  /** A tuning file that was brought in: its name, and cents of each note against equal temperament. */
  ownTuning: z.object({ name: z.string(), offsets: z.array(z.number().nullable()).length(128) }).nullable(),
  /** The player's own instruments. */
  ownInstruments: z.array(instrumentSchema),
  /** Removed by the player, and kept for the takes that were played on them. */
  removedInstruments: z.array(instrumentSchema),
  /** What was last set for each exercise family, by its id. */
  exercises: z.record(z.string(), z.record(z.string(), z.unknown())),
  /** Families that stand first in the library, by their ids. */
  atHand: z.array(z.string()),
});
export type Settings = z.infer<typeof settingsSchema>;

export const settingsKind: RecordKind<Settings> = {
  name: 'settings',
  version: SETTINGS_VERSION,
  schema: settingsSchema,
  migrations: {
    1: (record) => ({ ...record, instrumentId: longToneOf(record).instrumentId }),
    2: ({ longTone, metronomeSound, ...record }) => {
      const { instrumentId, written, beats } = longToneOf({ longTone });
      const kept = z.record(z.string(), z.record(z.string(), z.unknown())).safeParse(record['exercises']);
      return {
        ...defaultSettings,
        ...record,
        metronome: { ...defaultSettings.metronome, mode: metronomeSound === false ? 'sight' : 'sound' },
        exercises: {
          ...(kept.success ? kept.data : {}),
          ...(written === undefined ? {} : { [`long-tone/${instrumentId}`]: { note: written, beats } }),
        },
      };
    },
    3: (record) => ({ ...record, removedInstruments: [] }),
    4: (record) => ({ ...record, ownLimits: limitsInMilliseconds(record['ownLimits']) }),
    5: (record) => ({ ...record, simulatedIn: 'dry' }),
    6: (record) => ({ ...record, exportEvery: 'never', lastExportAt: null }),
    7: (record) => ({ ...record, reeds: {} }),
    8: (record) => ({ ...record, welcomed: true }),
    9: (record) => ({ ...record, readAs: defaultSettings.readAs }),
    10: (record) => ({ ...record, roundTrips: undatedTrips(record['roundTrips']) }),
    11: (record) => ({ ...record, atHand: [] }),
    // There are more limits since.
    12: (record) => record,
  },
};

function undatedTrips(trips: unknown): Settings['roundTrips'] {
  const read = z.record(z.string(), z.number()).safeParse(trips);
  return Object.fromEntries(
    Object.entries(read.success ? read.data : {}).map(([device, seconds]) => [
      device,
      { seconds, measuredAt: null },
    ]),
  );
}

/** Limits of time were kept in seconds once, and the share of a hold as a fraction. */
const RENAMED: Readonly<Record<string, readonly [id: string, times: number]>> = {
  seamSeconds: ['seamMs', 1000],
  speechSeconds: ['speechMs', 1000],
  rushSeconds: ['rushMs', 1000],
  timingSpreadSeconds: ['timingSpreadMs', 1000],
  holdShare: ['holdPercent', 100],
};

function limitsInMilliseconds(own: unknown): Record<string, number> {
  const read = z.record(z.string(), z.number()).safeParse(own);
  return Object.fromEntries(
    Object.entries(read.success ? read.data : {}).map(([id, value]) => {
      const [name, times] = RENAMED[id] ?? [id, 1];
      return [name, Math.round(value * times * 1000) / 1000];
    }),
  );
}

/** What settings of old said of the one long tone that there was. */
function longToneOf(record: Record<string, unknown>) {
  const schema = z.object({
    instrumentId: z.string(),
    written: z.number().optional(),
    beats: z.number().optional(),
  });
  const read = schema.safeParse(record['longTone']);
  return read.success
    ? read.data
    : { instrumentId: defaultSettings.instrumentId, written: undefined, beats: undefined };
}

export const defaultSettings: Settings = {
  version: SETTINGS_VERSION,
  theme: 'system',
  a4: 440,
  source: 'microphone',
  simulatedIn: 'dry',
  metronome: { mode: 'sound', subdivision: 1, accents: true },
  drone: { sound: 'reed', volume: 0.4 },
  headphones: false,
  startOn: 'key',
  roundTrips: {},
  school: 'air',
  ownLimits: {},
  setup: UNTOLD,
  reeds: {},
  keepAudio: true,
  audioQuotaMegabytes: 200,
  exportEvery: 'never',
  lastExportAt: null,
  welcomed: false,
  instrumentId: 'flute',
  level: 'steady',
  naming: 'english',
  readAs: { pitch: 'written', oneClef: false },
  temperament: 'equal',
  tonic: 0,
  ownTuning: null,
  ownInstruments: [],
  removedInstruments: [],
  exercises: {},
  atHand: [],
};

export const SETTINGS_KEY = 'settings';
/** Where settings are kept beside those of a newer Gold Reed, which are left as they are. */
const ASIDE = `settings/${SETTINGS_VERSION}`;
/** The last text that could not be read, kept when it was written over. */
const DAMAGED = 'settings/damaged';

/** What is stored, and what of it could not be used. */
interface Found {
  readonly settings: Settings;
  /** Where changes are to be written. */
  readonly key: string;
  /** In words; null: all is well. */
  readonly problem: string | null;
  /** A text that a change would write over, and that cannot be read. */
  readonly damaged: string | null;
}

async function find(storage: Storage): Promise<Found> {
  const text = await storage.getItem(SETTINGS_KEY);
  const fine = { key: SETTINGS_KEY, problem: null, damaged: null };
  if (text === null) return { ...fine, settings: defaultSettings };
  const read = readRecord(settingsKind, text);
  if (read.ok) return { ...fine, settings: read.value };
  if (!(versionIn(text) > SETTINGS_VERSION))
    return { key: SETTINGS_KEY, settings: defaultSettings, problem: read.problem, damaged: text };
  const aside = await storage.getItem(ASIDE);
  const own = aside === null ? null : readRecord(settingsKind, aside);
  return {
    key: ASIDE,
    settings: own?.ok ? own.value : defaultSettings,
    problem: read.problem,
    damaged: null,
  };
}

function versionIn(text: string): number {
  try {
    return Number(z.object({ version: z.number() }).parse(JSON.parse(text)).version);
  } catch {
    return NaN;
  }
}

export const readSettings = async (storage: Storage): Promise<Settings> => (await find(storage)).settings;

/** Why the settings are not the player's own, in words; null: they are. */
export const settingsProblem = async (storage: Storage): Promise<string | null> =>
  (await find(storage)).problem;

/**
 * Changes some of the settings. Those of a newer Gold Reed stay; a damaged text is kept aside.
 * @param part or what makes it of the settings as they are when it is their turn: another tab may have changed them just before.
 */
export function changeSettings(
  storage: Storage,
  name: string,
  part: Partial<Settings> | ((before: Settings) => Partial<Settings>),
): Promise<Settings> {
  return exclusively(name, async () => {
    const { settings, key, damaged } = await find(storage);
    const next = { ...settings, ...(typeof part === 'function' ? part(settings) : part) };
    await storage.setMany({
      [key]: JSON.stringify(next),
      ...(damaged !== null && { [DAMAGED]: damaged }),
    });
    return next;
  });
}

/** An instrument that the player has now or had once, or a shipped one. */
export const instrumentIn = (
  { ownInstruments, removedInstruments }: Pick<Settings, 'ownInstruments' | 'removedInstruments'>,
  id: string,
): Instrument | undefined => findInstrument(id, [...ownInstruments, ...removedInstruments]);

/** Old takes only named their instruments; the player's own are looked up in the settings. */
export async function ownInstruments(storage: Storage): Promise<Instrument[]> {
  const { ownInstruments: own, removedInstruments } = await readSettings(storage);
  return [...own, ...removedInstruments];
}

/** The tuning that pitch is told in, as the settings have it. */
export function tuningOf({ temperament, tonic, ownTuning }: Settings): { name: string; offsets: Offsets } {
  if (temperament === 'own' && ownTuning) return ownTuning;
  const id = temperament === 'own' ? 'equal' : temperament;
  const name = temperaments.find((each) => each.id === id)?.name ?? 'Equal';
  return { name, offsets: offsetsOf({ temperament: id, tonic }) };
}
