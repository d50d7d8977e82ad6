import useSWR from 'swr';
import type { Midi } from '@/core/base';
import { longestPlaying, type Elsewhere, type Take } from '@/core/take';
import { findEntry, loadTake } from '@/store';

/** The same note in the newest other take on the same instrument that has it, and its sound. */
export function useElsewhere(take: Take, sounding: Midi): Elsewhere | null {
  const { data } = useSWR(['elsewhere', take.id, sounding], async () => {
    const entry = await findEntry(
      take.score.instrumentId,
      ({ id, audioBytes, heard }) => id !== take.id && audioBytes > 0 && heard.includes(Math.round(sounding)),
    );
    const other = entry && (await loadTake(entry.id));
    return other && longestPlaying(other, sounding);
  });
  return data ?? null;
}
