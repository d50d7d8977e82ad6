import type { Midi } from '@/core/base';
import { writtenRange, type Instrument } from '@/core/instruments';
import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';
import { nextTo } from './walks';

/** The notes on the two sides of the home note, or two on the one side where the instrument ends. */
function besides(instrument: Instrument): { neighbour: Midi; third: Midi } {
  const { home } = instrument;
  const { low, high } = writtenRange(instrument);
  const below = nextTo(instrument, 'usual', home, -1);
  const above = nextTo(instrument, 'usual', home + 1, 1);
  const [neighbour = home, third = home] = [
    below,
    above,
    nextTo(instrument, 'usual', below, -1),
    nextTo(instrument, 'usual', above, 1),
  ].filter((written) => written >= low && written <= high);
  return { neighbour, third };
}

export const problemCircle = defineFamily({
  id: 'problem-circle',
  title: 'Problem-note circle',
  section: 'sound',
  purposes: ['sameness of tone'],
  what: 'Brings a bad note up to its best neighbour.',
  how: 'Hold the note. Then come to it under a slur from its best neighbour, and go back, until the two match in fullness. At last a slow round of three notes whose changes nobody across the room should notice.',
  listen: 'The bad note beside the good one: which is fuller, which is louder, which has more air in it?',
  enough: 'When you can no longer say which is which, or after five minutes.',
  measured: 'Distance of the note’s colour from its neighbour’s, pitch, level, the slurs.',
  specs: {
    problem: note('Problem note'),
    neighbour: note('Best neighbour'),
    third: note('Third of the round'),
    times: count('To and fro', 2, 8, 'times'),
    beats: count('Each note', 1, 6, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['sameness', 'seam', 'pitch', 'steadiness', 'level'] },
  defaults: (instrument) => ({
    problem: instrument.home,
    ...besides(instrument),
    times: 3,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { problem, neighbour, third, times, beats }) {
    const roles = new Map([
      [problem, 'problem'],
      [neighbour, 'neighbour'],
    ] as const);
    const to = (row: readonly number[], length: number) =>
      row.forEach((written, i) =>
        writer.note(written, length, {
          attack: i === 0 ? 'tongued' : 'none',
          role: roles.get(written) ?? null,
        }),
      );
    writer.note(problem, 4 * beats, { label: 'the note', role: 'problem' });
    writer.breathe();
    for (let i = 0; i < times; i++) {
      to([neighbour, problem, neighbour], beats);
      writer.breathe();
    }
    for (let i = 0; i < 2; i++) {
      to([problem, neighbour, third], 2 * beats);
      writer.breathe();
    }
    writer.note(problem, 4 * beats, { label: 'the note', role: 'problem' });
  },
});
