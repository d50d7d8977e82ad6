import { findFamily, type Score } from '@/core/music';
import { noFaults, type FaultRates } from './faults';
import { steadyPlayer, type Player } from './player';

export interface Typical {
  readonly player: Player;
  readonly faults: FaultRates;
  /** What one is to listen for. */
  readonly words: string;
}

/** An even, middling swing, of the level too. */
const VIBRATO: Player['vibrato'] = { rateHz: 5.2, extentCents: 22, levelDb: 0.8 };

/** A steady player at a score, with vibrato where it is wanted. Where the breath itself is explored, tone and pitch go with it. */
export function playerFor({ family, vibrato }: Score): Player {
  return {
    ...steadyPlayer,
    ...(family === 'breath-sweep' && { centsPer10Db: 8, ringAboveDb: 10 }),
    ...(vibrato === 'wanted' && { vibrato: VIBRATO }),
  };
}

/** A player whose playing of a score has the fault that is most often heard in it. */
export function typicalFault(score: Score): Typical {
  const section = findFamily(score.family)?.section ?? 'sound';
  const player = (change: Partial<Player>): Player => ({ ...playerFor(score), ...change });
  switch (section) {
    case 'seams':
      return {
        player: player({}),
        faults: { ...noFaults, gap: 0.5, blip: 0.3, break: 0.15 },
        words: 'holes in the slurs, the lower mode for a moment at a start, a break inside a note',
      };
    case 'dynamics':
      return {
        player: player({ centsPer10Db: 9, levelWobbleDb: 1.5 }),
        faults: noFaults,
        words: 'the pitch goes with the level, and the line of the level is uneven',
      };
    case 'intonation':
      return {
        player: player({ offsetCents: -14, wobbleCents: 4 }),
        faults: noFaults,
        words: 'everything sits low and does not settle',
      };
    case 'rhythm':
      return {
        player: player({ tempoRatio: 1.04, timingSpreadSeconds: 0.025 }),
        faults: noFaults,
        words: 'the tempo rushes and the attacks are uneven',
      };
    default:
      return {
        player: player({
          wobbleCents: 7,
          driftCentsPerSecond: -2.5,
          levelDriftDbPerSecond: -1.4,
          scoopCents: -35,
          airinessDb: -22,
        }),
        faults: { ...noFaults, lateSpeech: 0.2 },
        words: 'notes that begin low and late, sink, fade and waver, with air beside the tone',
      };
  }
}
