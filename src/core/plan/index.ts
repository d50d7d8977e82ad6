export {
  BETWEEN,
  blockOf,
  blockSchema,
  dayPlanSchema,
  isRest,
  scoreOfBlock,
  secondsOf,
  whySchema,
  type Block,
  type DayPlan,
  type Why,
} from './block';
export { planDay } from './day';
export { drillsOf } from './piece';
export { doseOf, DRILLS, HEAVY, loadOf, SEAM_DRILLS, turnOf, type Part } from './drills';
export { holdOf, seamInterval, seamPriority, skillInterval, weakestOf } from './due';
export { easeOf, type Ease } from './ease';
export { eventNear } from './offers';
export {
  addBlock,
  lockBlock,
  moveBlock,
  moveToDay,
  replanned,
  shortenBlock,
  skipBlock,
  swapBlock,
} from './edits';
export type { PlanFor, RunningProgramme } from './planFor';
export {
  dayOfProgramme,
  findProgramme,
  lengthOf,
  outcomeOf,
  programmesFor,
  PROGRAMMES,
  type Programme,
  type ProgrammeOutcome,
} from './programmes';
export { sayChange } from './sayChange';
export { minutesText, sayBlock, sayDay, sayManner, sayWhy, sinceText, titleOfBlock } from './say';
export {
  drillOf,
  seenFrom,
  standing,
  type BreakStanding,
  type Calendar,
  type SeamStanding,
  type Standing,
} from './standing';
export { afterPlan, mondayOf, planDays } from './week';
export {
  civilDay,
  dateOf,
  dateSchema,
  isPracticeDay,
  nextPracticeDay,
  WEEKDAYS,
  ordinalOf,
  usualWishes,
  weekdayOf,
  wishesSchema,
  type CivilDay,
  type Wishes,
} from './wishes';
export {
  afterBlock,
  again,
  blockNow,
  crossedTold,
  endNow,
  isOver,
  progressOf,
  routineSchema,
  sessionOf,
  sessionSchema,
  skipNow,
  takesOf,
  withFailedPlace,
  type Failed,
  type Routine,
  type Session,
} from './session';
