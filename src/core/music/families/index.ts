import type { Family, Purpose } from '../family';
import { airDrills } from './air';
import { eightWays, lowChromatics, registerTest } from './attacks';
import { dynamicWindow, pulses, reversedDynamics, swells, tapers, whisperTones } from './dynamics';
import { angleSweep, bends, breathSweep, colours, comparison, edgeHold, towardModel } from './exploring';
import { blindTuning, droneWork, octaveCheck, sectionChords, tendencyScan } from './intonation';
import { onTheDay, roomCheck, setupCheck } from './prepare';
import { roamingScale, subdivisionLadder, twelveKeys } from './rhythm';
import {
  altissimoPairs,
  anchoredIntervals,
  harmonicClimb,
  justThisSeam,
  octaveSlurs,
  ventFlick,
} from './seams';
import {
  longHold,
  longToneFamily,
  melody,
  problemCircle,
  referenceTravel,
  threeNoteGroups,
  twoNoteLegato,
} from './sound';

/** Every family, in the order of a session. */
export const families: readonly Family[] = [
  setupCheck,
  roomCheck,
  longToneFamily,
  referenceTravel,
  threeNoteGroups,
  longHold,
  problemCircle,
  twoNoteLegato,
  melody,
  breathSweep,
  edgeHold,
  bends,
  comparison,
  harmonicClimb,
  octaveSlurs,
  ventFlick,
  anchoredIntervals,
  justThisSeam,
  altissimoPairs,
  eightWays,
  lowChromatics,
  registerTest,
  tapers,
  swells,
  dynamicWindow,
  pulses,
  reversedDynamics,
  whisperTones,
  droneWork,
  sectionChords,
  octaveCheck,
  blindTuning,
  tendencyScan,
  subdivisionLadder,
  roamingScale,
  twelveKeys,
  airDrills,
  angleSweep,
  colours,
  towardModel,
  onTheDay,
];

const byId = new Map(families.map((each) => [each.id, each]));

export function findFamily(id: string): Family | undefined {
  return byId.get(id);
}

export const PURPOSES: readonly Purpose[] = [
  'the break',
  'the low notes',
  'the high notes',
  'soft playing',
  'tuning',
  'sameness of tone',
  'attacks',
  'breath and air',
  'flexibility',
  'time',
  'music',
  'warming up',
];
