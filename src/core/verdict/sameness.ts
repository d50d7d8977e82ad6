import { FEATURE_IDS, FEATURES, type FeatureId } from '@/core/base';
import type { Note } from '@/core/hearing/notes';

/** What of a tone is compared. */
export type Colour = Pick<Note, FeatureId>;

export interface ColourPart {
  readonly feature: FeatureId;
  /** In steps that are about just noticed; plus is more of it. */
  readonly steps: number;
}

export interface Distance {
  /** In just-noticeable steps, all parts together; null when too little is known. */
  readonly steps: number | null;
  readonly parts: readonly ColourPart[];
}

/** How unlike two tones are: root mean square over the parts that are known of both, each in just noticed steps. */
export function distanceOf(tone: Colour, reference: Colour): Distance {
  const parts = FEATURE_IDS.flatMap((feature): ColourPart[] => {
    const [a, b] = [tone[feature], reference[feature]];
    return a === null || b === null ? [] : [{ feature, steps: (a - b) / FEATURES[feature].step }];
  });
  if (parts.length < 2) return { steps: null, parts };
  return { steps: Math.sqrt(parts.reduce((sum, part) => sum + part.steps ** 2, 0) / parts.length), parts };
}

/** `brighter`, `with less air`. */
export const differenceWord = ({ feature, steps }: ColourPart): string =>
  FEATURES[feature].words[steps > 0 ? 0 : 1];
