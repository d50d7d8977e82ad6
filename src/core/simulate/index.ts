export { faultRatesSchema, noFaults, type FaultRates, type TrueEvent } from './faults';
export { perform, type Performance, type PerformOptions, type TrueNote } from './perform';
export { playerSchema, steadyPlayer, type Player } from './player';
export { Random } from './random';
export { timbreOf, type Timbre } from './timbre';
