import type { Instrument } from '@/core/instruments';
import { families, type Family } from '@/core/music';
import { playerFor, type RoomName } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import type { Take } from '@/core/take';
import { judge, limitsOf, say } from '.';
import { beginning, type Beginning } from './truth.testing';

/** What the faultless player plays of a family that fits, as heard in a place. */
function takeIn(
  room: RoomName | null,
  place: number,
  instrument: Instrument,
  family: Family,
  most?: Beginning,
  set: Readonly<Record<string, unknown>> = {},
): Take | null {
  const score = beginning(family, instrument, most, set);
  const heardIn = room && { heardIn: { room, place } };
  return score && sharedTake({ score, instrument, seed: place, player: playerFor(score), ...heardIn }).take;
}

const NOTE = /[A-G][♯♭]?\d/g;
const NUMBER = /\d+(\.\d+)?/g;
const SOME_NOTES = /N(,? (and )?N)*/g;
/** What is left open, or said not to count. */
const OPEN = /ot known|could (not )?be told|not held against/;

/** What the faultless player is told in a place and not in a dry recording, but for numbers and for what is left open. */
export function saidOnlyIn(
  room: RoomName,
  places: readonly number[],
  instrument: Instrument,
  family: Family,
  most?: Beginning,
): string[] {
  const saidIn = (here: RoomName | null, place: number) => {
    const take = takeIn(here, place, instrument, family, most);
    if (!take) return [];
    const { headline, findings, notes } = say(judge(take, limitsOf('steady')), 'english');
    return [headline, ...findings.map(({ sentence }) => sentence), ...notes.map(({ manner }) => manner)];
  };
  const pattern = (sentence: string) =>
    sentence.replace(NOTE, 'N').replace(SOME_NOTES, 'N').replace(NUMBER, '#').replace(/s\b/g, '');
  const dry = new Set(saidIn(null, places[0] ?? 1).map(pattern));
  return places.flatMap((place) =>
    saidIn(room, place)
      .filter((sentence) => sentence !== '' && !OPEN.test(sentence) && !dry.has(pattern(sentence)))
      .map((sentence) => `${family.id} ${instrument.id} ${room}${place}: ${sentence}`),
  );
}

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
  most?: Beginning,
  set: Readonly<Record<string, unknown>> = {},
): RoomReport {
  const wrong: string[] = [];
  let [takes, accused, slurs, badSlurs, seconds, events] = [0, 0, 0, 0, 0, 0];
  for (const instrument of chosen)
    for (const family of chosenFamilies) {
      for (const place of places) {
        const take = takeIn(room, place, instrument, family, most, set);
        if (!take) continue;
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
