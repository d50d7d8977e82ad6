import type { Instrument } from '@/core/instruments';
import { families, type Family } from '@/core/music';
import { playerFor, type RoomName } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import { judge, limitsOf } from '.';
import { beginning } from './truth.testing';

/** What was said of the faultless player in rooms. */
export interface RoomReport {
  readonly takes: number;
  readonly accused: number;
  readonly slurs: number;
  readonly badSlurs: number;
  readonly minutes: number;
  readonly events: number;
  readonly wrong: readonly string[];
}

/** The faultless player on every family with notes that fits, in some places of a room, judged at the ordinary level. @param set of the exercises. */
export function faultlessIn(
  room: RoomName | null,
  places: readonly number[],
  chosen: readonly Instrument[],
  chosenFamilies: readonly Family[] = families,
  set: Readonly<Record<string, unknown>> = {},
): RoomReport {
  const wrong: string[] = [];
  let [takes, accused, slurs, badSlurs, seconds, events] = [0, 0, 0, 0, 0, 0];
  for (const instrument of chosen)
    for (const family of chosenFamilies) {
      const score = beginning(family, instrument, undefined, set);
      if (!score) continue;
      for (const place of places) {
        const { take } = sharedTake({
          score,
          instrument,
          seed: place,
          player: playerFor(score),
          ...(room && { heardIn: { room, place } }),
        });
        const judgement = judge(take, limitsOf('steady'));
        takes++;
        seconds += take.durationSeconds;
        events += take.events.length;
        slurs += judgement.seams.length;
        badSlurs += judgement.seams.filter(({ clean }) => clean === false).length;
        const label = `${family.id} ${instrument.id} ${room ?? 'dry'}${place}`;
        if (judgement.faults.length > 0 || judgement.outcome !== 'judged') {
          accused++;
          wrong.push(
            `${label}: ${judgement.outcome} ${judgement.faults
              .map(
                ({ kind, group, amount }) =>
                  `${kind}@${group}${amount ? ` ${amount.figure} ${amount.value.toFixed(1)} > ${amount.limit}` : ''}`,
              )
              .join('; ')}`,
          );
        }
        for (const { kind, startSeconds, soundingMidi } of take.events)
          wrong.push(`${label} event ${kind} ${soundingMidi}@${startSeconds.toFixed(2)}`);
      }
    }
  return { takes, accused, slurs, badSlurs, minutes: seconds / 60, events, wrong };
}
