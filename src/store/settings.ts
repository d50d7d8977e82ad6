import * as z from 'zod';
import { defaultLongTone, longToneSchema } from '@/core/exercises';
import type { RecordKind } from './records';

export const SETTINGS_VERSION = 1;

export const settingsSchema = z.object({
  version: z.literal(SETTINGS_VERSION),
  theme: z.enum(['system', 'paper', 'stage']),
  a4: z.number().min(380).max(500),
  source: z.enum(['microphone', 'simulated', 'file']),
  metronomeSound: z.boolean(),
  keepAudio: z.boolean(),
  audioQuotaMegabytes: z.number().min(10).max(2000),
  longTone: longToneSchema,
});
export type Settings = z.infer<typeof settingsSchema>;

export const settingsKind: RecordKind<Settings> = {
  name: 'settings',
  version: SETTINGS_VERSION,
  schema: settingsSchema,
  migrations: {},
};

export const defaultSettings: Settings = {
  version: SETTINGS_VERSION,
  theme: 'system',
  a4: 440,
  source: 'microphone',
  metronomeSound: true,
  keepAudio: true,
  audioQuotaMegabytes: 200,
  longTone: defaultLongTone('flute'),
};
