import { BETWEEN } from './between';
import { COLOUR } from './colour';
import { HOLDING } from './holding';
import { MODES } from './modes';
import { PITCH } from './pitch';
import { SPEAKING } from './speaking';
import { TIME } from './time';
import type { Rule } from './rule';

export type { Rule, School } from './rule';

/** The practitioners' table of faults as data: the most particular rule that fits is used. */
export const RULES: readonly Rule[] = [
  ...MODES,
  ...SPEAKING,
  ...COLOUR,
  ...PITCH,
  ...BETWEEN,
  ...HOLDING,
  ...TIME,
];
