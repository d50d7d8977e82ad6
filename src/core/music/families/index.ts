import type { Family, Purpose } from '../family';
import { airDrills } from './airDrills';
import { altissimoPairs } from './altissimoPairs';
import { anchoredIntervals } from './anchoredIntervals';
import { angleSweep } from './angleSweep';
import { bends } from './bends';
import { blindTuning } from './blindTuning';
import { breathSweep } from './breathSweep';
import { colours } from './colours';
import { comparison } from './comparison';
import { droneWork } from './droneWork';
import { dynamicWindow } from './dynamicWindow';
import { edgeHold } from './edgeHold';
import { eightWays } from './eightWays';
import { harmonicClimb } from './harmonicClimb';
import { justThisSeam } from './justThisSeam';
import { longHold } from './longHold';
import { longToneFamily } from './longTone';
import { lowChromatics } from './lowChromatics';
import { melody } from './melody';
import { octaveCheck } from './octaveCheck';
import { octaveSlurs } from './octaveSlurs';
import { onTheDay } from './onTheDay';
import { problemCircle } from './problemCircle';
import { pulses } from './pulses';
import { referenceTravel } from './referenceTravel';
import { registerTest } from './registerTest';
import { reversedDynamics } from './reversedDynamics';
import { roamingScale } from './roamingScale';
import { freePlaying } from './freePlaying';
import { roomCheck } from './roomCheck';
import { sectionChords } from './sectionChords';
import { setupCheck } from './setupCheck';
import { subdivisionLadder } from './subdivisionLadder';
import { swells } from './swells';
import { tapers } from './tapers';
import { tendencyScan } from './tendencyScan';
import { threeNoteGroups } from './threeNoteGroups';
import { towardModel } from './towardModel';
import { twelveKeys } from './twelveKeys';
import { twoNoteLegato } from './twoNoteLegato';
import { ventFlick } from './ventFlick';
import { whisperTones } from './whisperTones';

const ALL = [
  setupCheck,
  roomCheck,
  freePlaying,
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
] as const satisfies readonly Family[];

export type FamilyId = (typeof ALL)[number]['id'];

/** Every family, in the order of a session. */
export const families: readonly (Family & { readonly id: FamilyId })[] = ALL;

const byId = new Map<string, Family>(families.map((each) => [each.id, each]));

/** Of records and files: what is not known is a newer version's. */
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
