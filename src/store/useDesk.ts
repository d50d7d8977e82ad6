import useSWR, { mutate } from 'swr';
import type { Score } from '@/core/music';
import { changed, data, home, LOCAL, useStored, type Stored } from './opened';
import type { Block, Running, RunningStretch } from './runningStore';

let placing: Promise<void> = Promise.resolve();

/** What is on the stand now. */
export function useBlock() {
  return useSWR<Block | null, Error>(
    data('block'),
    async () => {
      await placing;
      return (await home()).running.readBlock();
    },
    LOCAL,
  );
}

/** Puts music on the stand. @param from path of the page it was taken from. */
export async function putOnStand(score: Score, from: string): Promise<void> {
  const block: Block = { score, from };
  // The stand is gone to in the same moment, and must find this block and not the one before, however slow the store.
  void mutate(data('block'), block, { revalidate: false });
  const written = home().then(({ running }) => running.writeBlock(block));
  placing = written.catch(() => undefined);
  await written;
}

export const storedRunning: Stored<Running | null> = {
  key: data('running'),
  read: async () => (await home()).running.readRunning(),
};

/** A block that was begun and not finished. */
export const useRunning = () => useStored(storedRunning);

export async function beginRunning(score: Score): Promise<void> {
  await (await home()).running.begin(score, new Date());
}

export async function keepSound(
  index: number,
  piece: number,
  audio: Int16Array,
  stretch: RunningStretch,
): Promise<void> {
  await (await home()).running.addSound(index, piece, audio, stretch);
}

export async function clearRunning(): Promise<void> {
  await (await home()).running.clear();
  await changed('running');
}

export async function refreshRunning(): Promise<void> {
  await changed('running');
}
