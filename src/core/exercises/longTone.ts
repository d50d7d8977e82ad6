import * as z from 'zod';
import { findInstrument, writtenRange } from '@/core/instruments';
import { failure, success, type Outcome } from '@/core/outcome';
import { displayName } from '@/core/tuning';
import { scoreOf, scoreSchema, type Score } from './score';

const LONGEST_BEATS = 64;

/** The parts of a long tone by themselves, as they are stored: whether they suit an instrument is not asked. */
export const longTonePartsSchema = z.object({
  instrumentId: z.string(),
  written: z.number().int(),
  beats: z.number().int().min(2).max(LONGEST_BEATS),
  tempo: z.number().int().min(30).max(208).nullable(),
  countInBeats: z.number().int().min(0).max(8),
  dynamic: scoreSchema.shape.notes.element.shape.dynamic,
  vibrato: scoreSchema.shape.vibrato,
});

/** What a player can set about a long tone. */
export const longToneSchema = longTonePartsSchema.superRefine((value, context) => {
  const instrument = findInstrument(value.instrumentId);
  if (!instrument) {
    context.addIssue({
      code: 'custom',
      path: ['instrumentId'],
      message: `there is no instrument "${value.instrumentId}"`,
    });
    return;
  }
  const { low, high } = writtenRange(instrument);
  if (value.written < low || value.written > high) {
    const message = `must lie between ${displayName(low)} and ${displayName(high)} on the ${instrument.name}`;
    context.addIssue({ code: 'custom', path: ['written'], message });
  }
});
export type LongTone = z.infer<typeof longToneSchema>;

/** One note held for a number of beats. A problem names the field and what it may be. */
export function longTone(parameters: LongTone): Outcome<Score> {
  const checked = longToneSchema.safeParse(parameters);
  if (!checked.success) {
    const [issue] = checked.error.issues;
    return failure(`${issue?.path.join('.') ?? 'long tone'}: ${issue?.message ?? 'is not valid'}`);
  }
  const { instrumentId, written, beats, tempo, countInBeats, dynamic, vibrato } = checked.data;
  return success(
    scoreOf({
      family: 'long-tone',
      title: `Long tone, ${displayName(written)}`,
      instrumentId,
      tempo,
      beatsPerBar: 4,
      countInBeats: tempo === null ? 0 : countInBeats,
      vibrato,
      notes: [{ written, startBeat: 0, beats, attack: 'tongued', dynamic }],
    }),
  );
}

export function defaultLongTone(instrumentId: string): LongTone {
  const home = findInstrument(instrumentId)?.home ?? 69;
  return {
    instrumentId,
    written: home,
    beats: 8,
    tempo: 60,
    countInBeats: 4,
    dynamic: 'mf',
    vibrato: 'none',
  };
}
