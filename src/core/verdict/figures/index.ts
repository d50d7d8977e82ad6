import type { FigureAbout } from './about';
import { NOTES } from './notes';
import { TIME } from './time';
import { SLURS } from './slurs';
import { SAMENESS } from './sameness';
import { LEVEL } from './level';
import { HOLDS } from './holds';
import { INTONATION } from './intonation';
import { MODES } from './modes';
import { EXPLORING } from './exploring';
import { PLAYED } from './freePlaying';

/** Every figure that can be found in a take, by subject; a row each. */
export const FIGURES = {
  ...NOTES,
  ...TIME,
  ...SLURS,
  ...SAMENESS,
  ...LEVEL,
  ...HOLDS,
  ...INTONATION,
  ...MODES,
  ...EXPLORING,
  ...PLAYED,
} as const satisfies Record<string, FigureAbout>;

export type FigureId = keyof typeof FIGURES;
export const FIGURE_IDS = Object.keys(FIGURES) as FigureId[];
