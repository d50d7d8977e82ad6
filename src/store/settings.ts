import * as z from 'zod';
import { defaultLongTone, longTonePartsSchema } from '@/core/exercises';
import { instrumentSchema, setOwnInstruments } from '@/core/instruments';
import { offsetsOf, setNaming, temperaments, type Offsets } from '@/core/tuning';
import type { RecordKind } from './records';

export const SETTINGS_VERSION = 2;

export const settingsSchema = z.object({
  version: z.literal(SETTINGS_VERSION),
  theme: z.enum(['system', 'paper', 'stage']),
  a4: z.number().min(380).max(500),
  source: z.enum(['microphone', 'simulated', 'file']),
  metronomeSound: z.boolean(),
  keepAudio: z.boolean(),
  audioQuotaMegabytes: z.number().min(10).max(2000),
  longTone: longTonePartsSchema,
  /** What is being played. */
  instrumentId: z.string(),
  level: z.enum(['beginner', 'steady', 'advanced', 'exacting']),
  naming: z.enum(['english', 'german', 'fixed-do']),
  temperament: z.enum(['equal', 'just', 'pythagorean', 'meantone', 'well-quarter', 'well-sixth', 'own']),
  /** Pitch class of the temperament's tonic, sounding. */
  tonic: z.number().int().min(0).max(11),
  /** A tuning file that was brought in: its name, and cents of each note against equal temperament. */
  ownTuning: z.object({ name: z.string(), offsets: z.array(z.number().nullable()).length(128) }).nullable(),
  /** The player's own instruments. */
  ownInstruments: z.array(instrumentSchema),
  /** What was last set for each exercise family, by its id. */
  exercises: z.record(z.string(), z.record(z.string(), z.unknown())),
});
export type Settings = z.infer<typeof settingsSchema>;

export const settingsKind: RecordKind<Settings> = {
  name: 'settings',
  version: SETTINGS_VERSION,
  schema: settingsSchema,
  migrations: {
    1: (record) => ({ ...defaultSettings, ...record, instrumentId: instrumentOf(record['longTone']) }),
  },
};

function instrumentOf(longTone: unknown): string {
  const read = z.object({ instrumentId: z.string() }).safeParse(longTone);
  return read.success ? read.data.instrumentId : defaultSettings.instrumentId;
}

export const defaultSettings: Settings = {
  version: SETTINGS_VERSION,
  theme: 'system',
  a4: 440,
  source: 'microphone',
  metronomeSound: true,
  keepAudio: true,
  audioQuotaMegabytes: 200,
  longTone: defaultLongTone('flute'),
  instrumentId: 'flute',
  level: 'steady',
  naming: 'english',
  temperament: 'equal',
  tonic: 0,
  ownTuning: null,
  ownInstruments: [],
  exercises: {},
};

/** Makes known to the core what of the settings it is to know of. */
export function applySettings({ ownInstruments, naming }: Settings): void {
  setOwnInstruments(ownInstruments);
  setNaming(naming);
}

/** The tuning that pitch is told in, as the settings have it. */
export function tuningOf({ temperament, tonic, ownTuning }: Settings): { name: string; offsets: Offsets } {
  if (temperament === 'own' && ownTuning) return ownTuning;
  const id = temperament === 'own' ? 'equal' : temperament;
  const name = temperaments.find((each) => each.id === id)?.name ?? 'Equal';
  return { name, offsets: offsetsOf({ temperament: id, tonic }) };
}
