import { Random } from '@/core/base';
import { findFamily, scoreOf } from '@/core/music';
import { findInstrument, instruments, writtenRange } from '@/core/instruments';
import { noFaults, perform, steadyPlayer, timbreOf, typicalFault, type PerformOptions } from '.';

const RATE = 24_000;

function options(change: Partial<PerformOptions> = {}): PerformOptions {
  const instrument = findInstrument('clarinet-bb');
  if (!instrument) throw new Error('clarinet');
  const note = (written: number, startBeat: number, attack: 'tongued' | 'none') => ({
    written,
    startBeat,
    beats: 1,
    attack,
    dynamic: 'mf' as const,
  });
  const score = scoreOf({
    family: 'figure',
    title: 'figure',
    instrumentId: instrument.id,
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'free',
    notes: [note(60, 0, 'tongued'), note(79, 1, 'none'), note(72, 2, 'tongued')],
  });
  return {
    score,
    instrument,
    player: steadyPlayer,
    seed: 1,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: 0.5,
    tailSeconds: 0.5,
    ...change,
  };
}

const rmsDb = (samples: Float32Array) =>
  10 * Math.log10(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);

describe('the simulated player', () => {
  it('plays the same from the same seed, and otherwise from another', () => {
    const once = perform(options()).audio;
    expect(perform(options()).audio).toEqual(once);
    expect(perform(options({ seed: 2 })).audio).not.toEqual(once);
  });

  it('is as loud as was asked, and leaves the room as it is', () => {
    const player = { ...steadyPlayer, levelDb: -26, levelDriftDbPerSecond: 0, levelWobbleDb: 0 };
    const { audio, notes } = perform(options({ player }));
    const body = audio.subarray((notes[0]!.startSeconds + 0.2) * RATE, (notes[0]!.endSeconds - 0.1) * RATE);
    expect(rmsDb(body)).toBeCloseTo(-26, 0);
    expect(rmsDb(audio.subarray(0, 0.4 * RATE))).toBeCloseTo(player.roomNoiseDb, 0);
  });

  it('tells the truth about its times', () => {
    const { notes } = perform(options({ player: { ...steadyPlayer, latenessSeconds: 0.04 } }));
    expect(notes.map((note) => note.startSeconds)).toEqual([0.54, 1.54, 2.54]);
    expect(notes.map((note) => note.slurred)).toEqual([false, true, false]);
    expect(notes.map((note) => note.soundingMidi)).toEqual([58, 77, 70]);
  });

  it('makes no faults unless asked, and each that is asked for', () => {
    expect(perform(options()).events).toEqual([]);
    for (const [rate, kind] of [
      ['break', 'break'],
      ['blip', 'blip'],
      ['squeak', 'squeak'],
      ['gap', 'gap'],
      ['wrongNote', 'wrong-note'],
      ['lateSpeech', 'late-speech'],
    ] as const) {
      const { events, notes } = perform(options({ faults: { ...noFaults, [rate]: 1 } }));
      expect(events.length).toBeGreaterThan(0);
      for (const event of events) {
        expect(event.kind).toBe(kind);
        const note = notes[event.noteIndex]!;
        expect(event.startSeconds).toBeGreaterThanOrEqual(note.startSeconds - 0.21);
        expect(event.endSeconds).toBeLessThanOrEqual(note.endSeconds);
      }
    }
  });

  it('sounds undertones only below upper modes', () => {
    const { events } = perform(options({ faults: { ...noFaults, undertone: 1 } }));
    expect(events.map((event) => event.noteIndex)).toEqual([1, 2]);
    expect(events.map((event) => event.soundingMidi)).toEqual([58, 51]);
  });

  it('rings at its breath: away from it partials weaken, as loud as before', () => {
    const heard = (ringAboveDb: number) => {
      const player = { ...steadyPlayer, levelDriftDbPerSecond: 0, levelWobbleDb: 0, ringAboveDb };
      const { audio, notes } = perform(options({ player }));
      const [from, to] = [notes[0]!.startSeconds + 0.2, notes[0]!.endSeconds - 0.1];
      const body = audio.slice(from * RATE, to * RATE);
      // Differences weigh a partial by its number.
      const steep = body.map((x, i) => x - (body[i - 1] ?? x));
      return { level: rmsDb(body), brightness: rmsDb(steep) - rmsDb(body) };
    };
    const [at, below, above] = [heard(0), heard(6), heard(-6)];
    for (const away of [below, above]) {
      expect(away.level).toBeCloseTo(at.level, 0);
      expect(away.brightness).toBeLessThan(at.brightness - 1);
    }
    expect(heard(10).brightness).toBeLessThan(below.brightness);
  });

  it('holds notes of one pitch under a slur as one tone, and tells where each is', () => {
    const { score } = options();
    const [first] = score.notes;
    const tied = { ...score, notes: [first!, { ...first!, startBeat: 1, attack: 'none' as const }] };
    const player = { ...steadyPlayer, wobbleCents: 0, levelWobbleDb: 0, levelDriftDbPerSecond: 0 };
    const { audio, notes, events } = perform(
      options({ score: tied, player, faults: { ...noFaults, gap: 1 } }),
    );
    expect(notes.map((note) => [note.startSeconds, note.slurred])).toEqual([
      [0.53, false],
      [1.53, true],
    ]);
    expect(events).toEqual([]);
    const over = (from: number) => rmsDb(audio.subarray(from * RATE, (from + 0.1) * RATE));
    expect(Math.abs(over(1.48) - over(1.2))).toBeLessThan(0.3);
  });

  it('has a colour of unit power for every note of every instrument', () => {
    for (const instrument of instruments) {
      const { low, high } = writtenRange(instrument);
      for (let written = low; written <= high; written += 5) {
        const { partials } = timbreOf(instrument, written, 440 * 2 ** ((written - 69) / 12), 20_000);
        expect(partials.reduce((sum, a) => sum + (a * a) / 2, 0)).toBeCloseTo(1, 9);
      }
    }
  });
});

describe('chance', () => {
  it('is uniform and normal enough to measure by', () => {
    const random = new Random(11);
    const values = Array.from({ length: 20_000 }, () => random.next());
    const normals = Array.from({ length: 20_000 }, () => random.normal());
    const mean = (all: number[]) => all.reduce((a, b) => a + b, 0) / all.length;
    expect(mean(values)).toBeCloseTo(0.5, 1);
    expect(Math.min(...values)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...values)).toBeLessThan(1);
    expect(mean(normals)).toBeCloseTo(0, 1);
    expect(mean(normals.map((x) => x * x))).toBeCloseTo(1, 1);
  });
});

describe('a score’s own dynamics', () => {
  it('are played: hairpins, breaths, and the fault that is typical of an exercise', () => {
    const made = (family: string) => {
      const score = findFamily(family)!.make(findInstrument('clarinet-bb')!, {});
      if (!score.ok) throw new Error(score.problem);
      return score.value;
    };
    const steady = { ...steadyPlayer, latenessSeconds: 0, levelWobbleDb: 0, levelDriftDbPerSecond: 0 };
    const swell = perform(options({ score: made('swells'), player: steady }));
    const level = (seconds: number) =>
      rmsDb(swell.audio.subarray(Math.round((0.5 + seconds) * RATE), Math.round((0.75 + seconds) * RATE)));
    expect(Math.abs(level(4) - level(0.6) - 11.2)).toBeLessThan(2);
    expect(Math.abs(level(4) - level(7) - 10)).toBeLessThan(2.5);
    const groups = perform(options({ score: made('three-note-groups'), player: steady }));
    expect(groups.notes[3]!.startSeconds - groups.notes[2]!.endSeconds).toBeGreaterThan(0.15);
    const slurs = made('octave-slurs');
    const { player, faults } = typicalFault(slurs);
    expect(perform(options({ score: slurs, player, faults })).events.length).toBeGreaterThan(3);
    expect(perform(options({ score: slurs })).events).toEqual([]);
  });
});
