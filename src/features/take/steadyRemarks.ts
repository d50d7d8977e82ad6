import type { Hertz } from '@/core/base';
import { displayName, hertzToMidi, type Naming } from '@/core/tuning';

/** Multiples of the mains’ frequency, in most of the world and in the rest of it. */
const MAINS: readonly Hertz[] = [50, 60];
const LOW_FOR_A_DRONE: Hertz = 130;

const isOf = (mains: Hertz) => (hz: Hertz) => Math.abs(hz - mains * Math.round(hz / mains)) < 1;

/** What sounded all along, and what to do about it. Where the mains hum, their multiples higher up are no drone either. */
export function steadyRemarks(all: readonly Hertz[], a4: Hertz, naming: Naming): string[] {
  const low = all.filter((hz) => hz < LOW_FOR_A_DRONE);
  const humming = MAINS.filter((mains) => low.some(isOf(mains)));
  const isHum = (hz: Hertz) => humming.some((mains) => isOf(mains)(hz));
  return all
    .filter((hz) => hz < LOW_FOR_A_DRONE || !isHum(hz))
    .map((hz) =>
      isHum(hz)
        ? `Something in the house hums at ${Math.round(hz)} Hz. It was taken out.`
        : `${displayName(Math.round(hertzToMidi(hz, a4)), naming)} sounded all along, at ${hz.toFixed(1)} Hz, and was taken out. Is it a drone? Use the one on the stand, which Gold Reed knows of, or hear yours on headphones.`,
    );
}
