export { altered, type Alteration } from './altered';
export { faultRatesSchema, noFaults, type FaultRates, type TrueEvent } from './faults';
export { perform, type Performance, type PerformOptions, type TrueNote } from './perform';
export { playerSchema, steadyPlayer, type Player } from './player';
export { timbreOf, type Timbre } from './timbre';
export { playerFor, typicalFault, type Typical } from './typical';
export { randomFigure } from './figure';
export { played, simulateTake, type SimulatedTake } from './simulateTake';
export { heardIn, ROOM_NAMES, rooms, type Room, type RoomName } from './rooms';
