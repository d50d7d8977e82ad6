export type { Chart, ChartLine, ChartRow, CurvesChart, RowsChart, TableChart } from './charts';
export { spoilsNext } from './explained';
export type { Amount, Fault, Weighed } from './fault';
export { FAULT_KINDS, FAULTS, type FaultKind } from './faults';
export { figuresAt, isKnown, valueOf, wholeOf } from './figure';
export type { Figure, KnownFigure, UnknownFigure } from './figure';
export { FIGURE_IDS, FIGURES, type FigureId } from './figures';
export { judge } from './judge';
export type { JudgedNote, JudgedSeam, Judgement } from './judge';
export type { Manner } from './manner';
export {
  LIMIT_IDS,
  LIMITS,
  limitsOf,
  ownLimitsSchema,
  type LimitId,
  type Limits,
  type OwnLimits,
} from './limits';
export type { Played } from './reading';
export { differenceWord, distanceOf, type Colour, type ColourPart, type Distance } from './sameness';
export { dipSpread } from './dipSpread';
export { asksLevel } from './measures';
export { amountText, limitText } from './amounts';
export type { NoteWords } from './noteWords';
export { faultText, say, speakingOf } from './say';
export type { Finding, Verdict } from './say';
export type { Speaking } from './measure';
export { fixed, listed, plural, sized } from './words';
