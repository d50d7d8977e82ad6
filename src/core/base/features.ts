/** What is told of a tone's colour and level, frame by frame and note by note: one row each. */
interface Feature {
  readonly name: string;
  /** In the ids of figures that compare it: `unlike-air`, `model-air`. */
  readonly short: string;
  readonly unit: string;
  readonly decimals: number;
  /** About what is just noticed between two notes. */
  readonly step: number;
  /** More of it, less of it. */
  readonly words: readonly [string, string];
  /** Kept along the take's thread, to be drawn or looked at. */
  readonly traced: boolean;
}

export const FEATURES = {
  brightness: {
    name: 'brightness',
    short: 'brightness',
    unit: 'partials',
    decimals: 1,
    step: 0.35,
    words: ['brighter', 'darker'],
    traced: true,
  },
  richness: {
    name: 'richness',
    short: 'richness',
    unit: 'partials',
    decimals: 0,
    step: 1.6,
    words: ['richer', 'with fewer partials'],
    traced: true,
  },
  airinessDb: {
    name: 'air',
    short: 'air',
    unit: 'dB',
    decimals: 0,
    step: 3,
    words: ['with more air', 'with less air'],
    traced: true,
  },
  oddEvenDb: {
    name: 'odd and even',
    short: 'hollow',
    unit: 'dB',
    decimals: 1,
    step: 3.5,
    words: ['more hollow', 'less hollow'],
    traced: false,
  },
  levelDb: {
    name: 'level',
    short: 'level',
    unit: 'dB',
    decimals: 1,
    step: 2.5,
    words: ['louder', 'softer'],
    traced: true,
  },
} as const satisfies Record<string, Feature>;

export type FeatureId = keyof typeof FEATURES;
export const FEATURE_IDS = Object.keys(FEATURES) as FeatureId[];
/** In the ids of figures. */
export type ShortOf<Id extends FeatureId> = (typeof FEATURES)[Id]['short'];

/** Features of the spectrum: a column of the frames and a figure of each note, under the same name from end to end. */
export type ColourId = Exclude<FeatureId, 'levelDb'>;
/** All of them, in the order of the features. */
export const COLOURS = FEATURE_IDS.filter((id): id is ColourId => id !== 'levelDb');

/** Something for each of them. */
export const perColour = <T>(of: (id: ColourId) => T): Record<ColourId, T> =>
  Object.fromEntries(COLOURS.map((id) => [id, of(id)])) as Record<ColourId, T>;
