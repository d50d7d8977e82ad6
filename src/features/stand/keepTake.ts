import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import { takeOf, writtenDown, type Take } from '@/core/take';
import { clearRunning, newId, saveDraft, tuningOf, type Settings } from '@/store';
import type { Stretches } from './stretches';

/** Makes one take of the stretches a block was played in, and keeps it for review. */
export async function keepTake(
  score: Score,
  instrument: Instrument,
  settings: Settings,
  stretches: Stretches,
  interruption: string | null,
): Promise<Take> {
  const heard = await stretches.whole();
  const told = stretches.conditions;
  if (!told) throw new Error('nothing was listened to');
  const now = new Date();
  const tuning = tuningOf(settings);
  const music = score.free ? writtenDown(score, instrument, heard) : score;
  const take = takeOf(newId(now), now, music, instrument, heard, {
    ...told,
    a4: settings.a4,
    temperament: tuning.name,
    offsets: [...tuning.offsets],
    interruption,
    headphones: settings.headphones,
    setup: settings.setup,
    school: settings.school,
  });
  await saveDraft(take, heard.audio);
  await clearRunning();
  return take;
}
