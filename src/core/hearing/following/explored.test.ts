import { exploredIn, Explored, type ExploredPicture, type Exploring } from '@/core/hearing/following';
import { findInstrument, soundingOf } from '@/core/instruments';
import { findFamily, type FamilyId, type Score } from '@/core/music';

const instrument = findInstrument('flute')!;
const FRAME = 0.01;

function scoreOf(family: FamilyId, values: Record<string, unknown> = {}): Score {
  const made = findFamily(family)!.make(instrument, values);
  if (!made.ok) throw new Error(made.problem);
  return made.value;
}

/** What is seen after a score has been played, frame by frame. @param heard cents, level and ring at a beat of the music. */
function seen<K extends Exploring>(
  kind: K,
  score: Score,
  heard: (
    beat: number,
    note: Score['notes'][number],
  ) => { cents: number; levelDb: number; ring?: number } | null,
): ExploredPicture & { kind: K } {
  const explored = new Explored(kind, score, instrument);
  const tempo = score.tempo ?? 60;
  const last = score.notes[score.notes.length - 1]!;
  const end = ((last.startBeat + last.beats) * 60) / tempo;
  for (let at = 0; at < end; at += FRAME) {
    const beat = (at * tempo) / 60;
    const note = score.notes.findLast(({ startBeat }) => startBeat <= beat)!;
    const sound = beat < note.startBeat + note.beats ? heard(beat, note) : null;
    explored.push({
      at,
      musicSeconds: at,
      midi: sound ? soundingOf(instrument, note.written) + sound.cents / 100 : NaN,
      levelDb: sound?.levelDb ?? -80,
      ring: sound?.ring ?? NaN,
    });
  }
  return explored.picture as ExploredPicture & { kind: K };
}

describe('what is explored, while it sounds', () => {
  it('is told by the music, and by most music not at all', () => {
    expect(exploredIn(scoreOf('breath-sweep'))).toBe('bow');
    expect(exploredIn(scoreOf('angle-sweep'))).toBe('bow');
    expect(exploredIn(scoreOf('bends'))).toBe('reach');
    expect(exploredIn(scoreOf('dynamic-window'))).toBe('window');
    expect(exploredIn(scoreOf('long-hold'))).toBe('growth');
    expect(exploredIn(scoreOf('long-tone'))).toBeNull();
    expect(exploredIn(scoreOf('melody'))).toBeNull();
  });

  it('a sweep: bows up and back, and shows where it rings and where it is in tune', () => {
    const score = scoreOf('breath-sweep');
    const { beats } = score.notes[0]!;
    // Softly low, loudly high, a quarter of the way up most ringing and exactly half of the way in tune.
    const picture = seen('bow', score, (beat) => {
      const way = 1 - Math.abs((2 * beat) / beats - 1);
      return { cents: -30 + 60 * way, levelDb: -50 + 30 * way, ring: 12 - 16 * Math.abs(way - 0.25) };
    });
    expect(picture.there.map(({ levelDb }) => levelDb)).toEqual(
      [...picture.there.map(({ levelDb }) => levelDb)].sort((a, b) => a - b),
    );
    expect(picture.back.length).toBeGreaterThan(10);
    expect(Math.abs(picture.tuneDb! - -15)).toBeLessThan(1);
    expect(Math.abs(picture.ringDb! - -22.5)).toBeLessThan(2.5);
  });

  it('a bend: as far as it went from the plain note, wherever that lay', () => {
    const score = scoreOf('bends');
    const asked: Readonly<Record<string, [number, number]>> = {
      'bend-down': [0, -62],
      'bend-back-up': [-62, 0],
      'bend-up': [0, 41],
      'bend-back-down': [41, 0],
    };
    const picture = seen('reach', score, (beat, note) => {
      const [from, to] = asked[note.role ?? ''] ?? [0, 0];
      return { cents: 9 + from + ((to - from) * (beat - note.startBeat)) / note.beats, levelDb: -25 };
    });
    expect(Math.abs(picture.downCents - 62)).toBeLessThan(3);
    expect(Math.abs(picture.upCents - 41)).toBeLessThan(3);
  });

  it('a window: both ends of each note', () => {
    const score = scoreOf('dynamic-window');
    const picture = seen('window', score, (_, { role, written }) => ({
      cents: 0,
      levelDb: (role === 'softest' ? -48 : -22) + (written % 2),
    }));
    expect(picture.notes.length).toBe(new Set(score.notes.map(({ written }) => written)).size);
    for (const { written, softDb, loudDb } of picture.notes) {
      expect(softDb).toBeCloseTo(-48 + (written % 2));
      expect(loudDb).toBeCloseTo(-22 + (written % 2));
    }
  });

  it('a hold: its length, without the walk to it; a moment that was not heard does not end it', () => {
    const score = { ...scoreOf('long-hold'), tempo: 60 };
    const first = score.notes.find(({ role }) => role === 'hold')!;
    const picture = seen('growth', score, (beat, note) =>
      note.role === 'hold' && beat > note.startBeat + 12
        ? null
        : beat > first.startBeat + 5 && beat < first.startBeat + 5.1
          ? null
          : { cents: 3, levelDb: -30 },
    );
    const holds = score.notes.filter(({ role }) => role === 'hold');
    expect(picture.holds.map(({ written }) => written)).toEqual(holds.map(({ written }) => written));
    for (const { seconds } of picture.holds) expect(Math.abs(seconds - 12)).toBeLessThan(0.05);
    expect(picture.holding).toBe(false);
  });

  it('begins anew with a breath that is played again, and keeps the holds that were held', () => {
    const sweep = scoreOf('breath-sweep');
    const again = new Explored('bow', sweep, instrument);
    const blow = (levels: readonly number[], explored: Explored, score: Score) =>
      levels.forEach((levelDb, i) => {
        const at = i * 0.05;
        const midi = soundingOf(instrument, score.notes[0]!.written);
        explored.push({ at, musicSeconds: at, midi, levelDb, ring: 5 });
      });
    const soft = Array.from({ length: 60 }, (_, i) => -60 + i / 4);
    blow(soft, again, sweep);
    blow(
      soft.map((db) => db + 20),
      again,
      sweep,
    );
    const once = new Explored('bow', sweep, instrument);
    blow(
      soft.map((db) => db + 20),
      once,
      sweep,
    );
    expect(again.picture).toEqual(once.picture);

    const long = { ...scoreOf('long-hold'), tempo: 60 };
    const held = long.notes.find(({ role }) => role === 'hold')!;
    const holds = new Explored('growth', long, instrument);
    for (const seconds of [5, 3])
      for (let at = 0; at < seconds; at += FRAME)
        holds.push({
          at,
          musicSeconds: held.startBeat + 0.1,
          midi: soundingOf(instrument, held.written),
          levelDb: -30,
          ring: 5,
        });
    const lengths = (holds.picture as ExploredPicture & { kind: 'growth' }).holds.map(({ seconds }) =>
      Math.round(seconds),
    );
    expect(lengths).toEqual([5, 3]);
  });
});
