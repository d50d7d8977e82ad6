export { AlsoToday } from './AlsoToday';
export { PlanStrand } from './PlanStrand';
export { standAhead } from './standings';
export { StrandLine } from './StrandLine';
export { useBeginSession } from './useBeginSession';
export { usePlanning, type Planning } from './usePlanning';
