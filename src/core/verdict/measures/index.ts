import type { MeasureId } from '@/core/music';
import type { Measure } from '../measure';
import { attack } from './attack';
import { climb } from './climb';
import { colours, compare, model } from './compare';
import { angle, bend, edge } from './exploring';
import { held } from './held';
import { just, leaning, scan } from './intonation';
import { hold } from './holds';
import { pulses, window } from './levels';
import { bothWays, line } from './lines';
import { played } from './freePlaying';
import { registerTest, room, slide } from './prepare';
import { ladder, rhythm } from './rhythm';
import { interval, octaves } from './octaves';
import { anchor, sameness } from './same';
import { seam } from './slurs';
import { ways } from './ways';
import { sweep } from './sweep';
import { air, level, pitch, steadiness } from './tone';

/** Every measure that a family can ask for, by the name that it asks for it with. */
export const MEASURES: Readonly<Record<MeasureId, Measure>> = {
  held,
  pitch,
  steadiness,
  level,
  air,
  attack,
  rhythm,
  ladder,
  seam,
  interval,
  played,
  sameness,
  anchor,
  ways,
  line,
  'both-ways': bothWays,
  pulses,
  window,
  hold,
  octaves,
  just,
  leaning,
  scan,
  slide,
  room,
  climb,
  'register-test': registerTest,
  bend,
  sweep,
  edge,
  angle,
  compare,
  colours,
  model,
};

export { differenceOf, type Difference } from './compare';
export { faultsOfHappenings, happenings, happeningsIn, isAbove, playedText } from './happenings';
export { inNodes, type InNode } from './nodes';
export { LEAST_FADE, mayFadeInRoom, roomSpread } from './roomSpread';
export { ownOvershoot } from './ownOvershoot';
export { hasWobble, roomWobble, wobbleHiddenBy } from './wobble';
export { asksLevel, cleanFigures, judgedSlurs, type JudgedSlur } from './slurs';
