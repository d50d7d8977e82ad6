import { scoreOf, type Metre, type Score } from '.';
import { numberedBars, passageOf, wholeOf } from '.';

const metre = (startBeat: number, length: number | null = null): Metre => ({
  startBeat,
  beats: 3,
  unit: 4,
  length,
});
/** A pickup and four bars of crotchets, the second bar slurred into the third, a note held over into the fourth. */
const piece: Score = scoreOf({
  family: 'own-music',
  title: 'The mill',
  instrumentId: 'flute',
  tempo: 80,
  beatsPerBar: 3,
  countInBeats: 2,
  vibrato: 'free',
  metres: [metre(0, 1), metre(1)],
  notes: [
    [0, 1],
    [1, 1],
    [2, 2],
    [4, 3],
    [7, 1],
    [8, 1],
    [9, 2],
    [11, 2],
  ].map(([startBeat, beats], i) => ({
    written: 67 + i,
    startBeat: startBeat!,
    beats: beats!,
    attack: i === 4 ? ('none' as const) : ('tongued' as const),
    dynamic: 'mf' as const,
  })),
});

test('bars are counted as musicians do, the pickup as none', () => {
  expect(numberedBars(piece).map(({ number }) => number)).toEqual([0, 1, 2, 3, 4]);
  expect(wholeOf(piece)).toEqual({ fromBar: 0, toBar: 4, tempo: 80, times: 1 });
  expect(passageOf(piece, wholeOf(piece))).toEqual(piece);
});

test('a passage begins what is slurred into it, and is repeated at its own tempo', () => {
  const part = passageOf(piece, { fromBar: 3, toBar: 3, tempo: 60, times: 4 });
  expect(part).toMatchObject({ title: 'The mill, bar 3', tempo: 60, repeats: 4, countInBeats: 3 });
  expect(part.notes.map(({ startBeat, beats, attack }) => [startBeat, beats, attack])).toEqual([
    [0, 1, 'tongued'],
    [1, 1, 'tongued'],
    [2, 1, 'tongued'],
  ]);
  const free = passageOf(piece, { fromBar: 3, toBar: 4, tempo: null, times: 1 });
  expect(free).toMatchObject({ title: 'The mill, bars 3–4', tempo: null, countInBeats: 0 });
  expect(free.notes.map(({ startBeat }) => startBeat)).toEqual([0, 1, 2, 4]);
});
