import { forgetAside as forget, readAside, type Aside } from './aside';
import { believeClock, readClock, type Clock } from './clock';
import { changed, data, home, useStored, type Stored } from './opened';

const storedAside: Stored<Aside[]> = {
  key: data('aside'),
  read: async () => readAside((await home()).storage),
};

/** Records that could not be read and were put aside, newest first. */
export const useAside = () => useStored(storedAside);

/** The player has seen it, and does not want it. */
export async function forgetAside(id: string): Promise<void> {
  await forget((await home()).storage, id);
  await changed('aside');
}

const storedClock: Stored<Clock> = {
  key: data('clock'),
  read: async () => readClock((await home()).storage, new Date()),
};

/** What the device's clock says, and whether it has jumped. */
export const useClock = () => useStored(storedClock);

/** The clock is right, whatever it said before. */
export async function trustClock(): Promise<void> {
  await believeClock((await home()).storage, new Date(), true);
  await changed('clock');
}
