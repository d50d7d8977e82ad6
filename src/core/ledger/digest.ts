import { nameWithin } from '@/core/instruments';
import type { Take } from '@/core/take';
import type { Naming } from '@/core/tuning';
import { isKnown, judge, say, type Judgement, type Limits } from '@/core/verdict';
import { packed, type PackedCells } from './cells';
import { MEASURED_BY, type Entry } from './entry';
import { cellsOf } from './gathered';
import { sparkOf } from './spark';

/** All that is read of a take once it is kept, but for its own page: its row and its cells. Can be made again at any time. */
export interface Digest {
  readonly entry: Entry;
  readonly cells: PackedCells;
}

/** @param limits by which it is judged now: for the words of its row, and for nothing that is counted later. */
export function digestOf(take: Take, limits: Limits, naming: Naming): Digest {
  const judgement = judge(take, limits);
  return { entry: entryOf(take, judgement, naming), cells: packed(cellsOf(take, judgement)) };
}

function entryOf(take: Take, judgement: Judgement, naming: Naming): Entry {
  const { score, instrument, conditions, notes } = take;
  const { setup } = conditions;
  return {
    id: take.id,
    createdAt: take.createdAt,
    durationSeconds: take.durationSeconds,
    family: score.family,
    title: score.title,
    parameters: Object.fromEntries(Object.entries(score.parameters).filter(([id]) => id !== 'model')),
    tempo: score.tempo,
    instrumentId: score.instrumentId,
    instrumentName: instrument ? nameWithin(instrument) : score.instrumentId,
    headline: say(judgement, naming).headline,
    figures: Object.fromEntries(
      judgement.figures.flatMap((each) =>
        each.at === null && isKnown(each)
          ? [[each.id, [rounded(each.value), rounded(each.spread), each.n, each.of ?? null]]]
          : [],
      ),
    ),
    faults: Object.fromEntries(judgement.ranked.map(({ kind, faults }) => [kind, faults.length])),
    spark: sparkOf(take),
    heard: [...new Set(notes.map(({ soundingMidi }) => soundingMidi))].sort((a, b) => a - b),
    exploring: score.counts.exploring,
    cue: score.cue,
    school: conditions.school,
    reed: setup.reed,
    room: setup.room,
    a4: conditions.a4,
    slideMm: setup.slideMm,
    temperatureC: setup.temperatureC,
    warmth: setup.warmth,
    source: conditions.source,
    remark: take.remark,
    audioBytes: take.audio?.bytes ?? 0,
    measuredBy: MEASURED_BY,
  };
}

function rounded<T extends number | null>(value: T): T {
  return (value === null ? null : Math.round(value * 1000) / 1000) as T;
}
