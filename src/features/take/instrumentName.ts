import { nameWithin } from '@/core/instruments';
import type { Take } from '@/core/take';

/** What a take was played on, as it stands within a sentence; its id where the instrument itself is not known. */
export const instrumentName = ({ instrument, score }: Pick<Take, 'instrument' | 'score'>): string =>
  instrument ? nameWithin(instrument) : score.instrumentId;
