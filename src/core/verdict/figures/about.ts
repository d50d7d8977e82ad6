import { capital, FEATURES, type FeatureId, type ShortOf } from '@/core/base';

/** What a figure is, for everybody who shows, files or compares it: one row each. */
export interface FigureAbout {
  readonly label: string;
  /** As it stands behind the number; empty where the number is its own unit. */
  readonly unit: string;
  readonly decimals: number;
  /** What it means, and how sure it is. */
  readonly meaning: string;
}

export const STEPS =
  'Brightness, richness, air, balance of odd and even partials and level, each in steps that are about just noticed; the root mean square of them.';
export const GAIN = 'The microphone’s own gain control has to be off.';

/** A row of figures. @param meaning said where the figure stands: what it is and how it is measured. */
export function about(label: string, unit: string, decimals: number, meaning: string): FigureAbout {
  return { label, unit, decimals, meaning };
}

/** A figure for each of some features: how far it is from that of something else, under the id `with-short`. */
export const comparedWith = <With extends string, Id extends FeatureId>(
  id: With,
  what: string,
  features: readonly Id[],
): Record<`${With}-${ShortOf<Id>}`, FigureAbout> =>
  Object.fromEntries(
    features.map((feature) => {
      const { name, short } = FEATURES[feature];
      return [`${id}-${short}`, about(`${capital(name)} against the ${what}`, 'steps', 1, STEPS)];
    }),
  ) as Record<`${With}-${ShortOf<Id>}`, FigureAbout>;

/** What every figure that compares two sides says of how it is measured. */
export function compared(): string {
  return 'Difference of the medians, the second side less the first, with a 95 % interval by resampling. Only where the interval leaves zero out, and by more than 1 cent, 0.5 dB of level, 1 dB of air, 0.2 partials of brightness or 1 of richness, is anything claimed.';
}
