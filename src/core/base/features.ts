/** What is told of a tone's colour and level, frame by frame and note by note: one row each. */
interface Feature {
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  /** About what is just noticed between two notes. */
  readonly step: number;
  /** More of it, less of it. */
  readonly words: readonly [string, string];
}

export const FEATURES = {
  brightness: {
    name: 'brightness',
    unit: 'partials',
    decimals: 1,
    step: 0.35,
    words: ['brighter', 'darker'],
  },
  richness: {
    name: 'richness',
    unit: 'partials',
    decimals: 0,
    step: 1.6,
    words: ['richer', 'with fewer partials'],
  },
  airinessDb: {
    name: 'air',
    unit: 'dB',
    decimals: 0,
    step: 3,
    words: ['with more air', 'with less air'],
  },
  oddEvenDb: {
    name: 'odd and even',
    unit: 'dB',
    decimals: 1,
    step: 3.5,
    words: ['more hollow', 'less hollow'],
  },
  levelDb: { name: 'level', unit: 'dB', decimals: 1, step: 2.5, words: ['louder', 'softer'] },
} as const satisfies Record<string, Feature>;

export type FeatureId = keyof typeof FEATURES;

/** Features of the spectrum: a column of the frames and a figure of each note, under the same name from end to end. */
export type ColourId = Exclude<FeatureId, 'levelDb'>;
export const COLOURS = (Object.keys(FEATURES) as FeatureId[]).filter(
  (id): id is ColourId => id !== 'levelDb',
);

/** Something for each of them. */
export const perColour = <T>(of: (id: ColourId) => T): Record<ColourId, T> =>
  Object.fromEntries(COLOURS.map((id) => [id, of(id)])) as Record<ColourId, T>;
