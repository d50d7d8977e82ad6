import { findInstrument } from '@/core/instruments';
import { simulateTake } from '@/core/lab';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { writtenDown, type Take } from '@/core/take';
import { judge, limitsOf, say } from '@/core/verdict';
import { digestOf, isClean, isCovered, unpacked } from '.';

const flute = findInstrument('flute')!;
const limits = limitsOf('steady');
/** What the simulated player played of some music, heard as free playing. */
function freely(family: string, values = {}, faults = {}): { take: Take; asked: readonly number[] } {
  const score = scoreOfFamily(family, 'flute', values);
  const { take } = simulateTake({ score, seed: 4, faults, player: { leanings: { 74: -16 } } });
  const free = scoreOfFamily('free-playing', 'flute');
  return {
    take: { ...take, score: writtenDown(free, flute, take) },
    asked: score.notes.map(({ written }) => written),
  };
}

describe('free playing', () => {
  it('is written down as what was played, tongued and slurred', () => {
    const { take, asked } = freely('octave-slurs', { range: { low: 64, high: 66 } });
    expect(take.score.notes.map(({ written }) => written)).toEqual(asked);
    const slurred = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 } }).notes.map(
      ({ attack }) => attack,
    );
    expect(take.score.notes.map(({ attack }) => attack)).toEqual(slurred);
    expect(take.score).toMatchObject({ tempo: null, free: true, family: 'free-playing' });
  });

  it('is not scolded for stops: nobody asked for a slur', () => {
    const { take } = freely('octave-slurs', { range: { low: 64, high: 67 } }, { gap: 0.5 });
    expect(judge(take, limits).faults.filter(({ kind }) => kind === 'hole')).toEqual([]);
    expect(take.score.notes.filter(({ attack }) => attack === 'tongued').length).toBeGreaterThan(6);
  });

  it('is told note by note, misses nothing, and is scolded for no wrong note', () => {
    const { take } = freely('tendency-scan', { range: { low: 70, high: 75 } });
    const judgement = judge(take, limits);
    const said = say(judgement, 'english');
    expect(judgement.faults.filter(({ kind }) => kind === 'missed' || kind === 'wrong-note')).toEqual([]);
    const table = said.charts.find(({ kind }) => kind === 'table');
    if (table?.kind !== 'table') throw new Error('no table');
    expect(table.rows.map(({ name }) => name)).toHaveLength(6);
    expect(table.rows.find(({ name }) => name === 'D5')!.cells[1]).toMatch(/^(19|20|21) low$/);
  });

  it('fills the map and the seams like any other take', () => {
    const { entry, cells } = digestOf(freely('octave-slurs', {}, { blip: 0.4 }).take, limits, 'english');
    const { notes, crossings } = unpacked(cells);
    expect(new Set(notes.map(({ written }) => written)).size).toBeGreaterThan(8);
    expect(crossings.length).toBeGreaterThan(10);
    expect(crossings.some((each) => isClean(each, limits) === false)).toBe(true);
    expect(entry.figures['sounded']![0]).toBeGreaterThan(10);
  });

  it('knows of a slur whether the room rang over it', () => {
    const score = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 } });
    const covered = (heardIn?: { room: 'living'; place: number }) => {
      const { take } = simulateTake({ score, seed: 4, ...(heardIn && { heardIn }) });
      const { crossings } = unpacked(digestOf(take, limits, 'english').cells);
      return crossings.filter(isCovered).length / crossings.length;
    };
    expect(covered()).toBe(0);
    expect(covered({ room: 'living', place: 1 })).toBeGreaterThan(0.5);
  });

  it('in which nothing sounded says so', () => {
    const { take } = freely('octave-slurs');
    const silent: Take = { ...take, notes: [], transitions: [], events: [] };
    const score = writtenDown(scoreOfFamily('free-playing', 'flute'), flute, silent);
    expect(score.notes).toEqual([]);
    expect(say(judge({ ...silent, score }, limits), 'english').headline).not.toBe('');
  });
});
