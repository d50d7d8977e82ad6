import { thinned, WHOLE } from '@/core/base/thinned.testing';
import { findInstrument, listeningRange, type Instrument } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { perform, randomFigure, steadyPlayer, type FaultRates, type TrueEvent } from '@/core/lab';
import { hearNotes, type Heard, type NoteEvent } from '.';
import { playAndHear, RATE } from './playAndHear.testing';

const SLACK = 0.05;
const IDS = thinned(
  [
    'flute',
    'piccolo',
    'recorder-alto',
    'oboe',
    'bassoon',
    'clarinet-bb',
    'clarinet-bass',
    'sax-tenor',
    'ney-d',
  ],
  4,
);

const hear = (instrument: Instrument, seed: number, faults: Partial<FaultRates>) =>
  playAndHear(randomFigure(instrument, seed, 12), instrument, seed, faults);

const same = (truth: TrueEvent, heard: NoteEvent) =>
  truth.kind === heard.kind &&
  heard.startSeconds < truth.endSeconds + SLACK &&
  heard.endSeconds > truth.startSeconds - SLACK;

/** How many of the notes that were played were heard, by pitch and time. */
function found(performance: ReturnType<typeof perform>, heard: Heard): number {
  return performance.notes.filter((note) =>
    heard.notes.some(
      (each) =>
        each.soundingMidi === note.soundingMidi && Math.abs(each.startSeconds - note.startSeconds) < 0.12,
    ),
  ).length;
}

describe('random figures on many instruments', () => {
  const takes = IDS.map((id, i) => ({ id, seed: 31 + i }));

  it('are heard note for note, and nothing is made up', () => {
    for (const { id, seed } of takes) {
      const { performance, heard } = hear(findInstrument(id)!, seed, {});
      expect(`${id} ${found(performance, heard)}`).toBe(`${id} ${performance.notes.length}`);
      expect(`${id} ${heard.notes.length}`).toBe(`${id} ${performance.notes.length}`);
      expect(heard.events.map((event) => `${id} ${event.kind}`)).toEqual([]);
    }
  });

  const kinds: (keyof FaultRates)[] = ['break', 'blip', 'squeak', 'undertone', 'gap'];
  it.each(kinds)('have their faults found, placed and not multiplied: %s', (kind) => {
    let truths = 0;
    let hits = 0;
    let heardOnes = 0;
    const errors: number[] = [];
    for (const { id, seed } of takes) {
      const { performance, heard } = hear(findInstrument(id)!, seed, { [kind]: 0.6 });
      truths += performance.events.length;
      heardOnes += heard.events.length;
      for (const truth of performance.events) {
        const hit = heard.events.find((event) => same(truth, event));
        if (!hit) continue;
        hits++;
        errors.push(
          Math.abs(hit.startSeconds - truth.startSeconds),
          Math.abs(hit.endSeconds - truth.endSeconds),
        );
      }
    }
    errors.sort((a, b) => a - b);
    expect(truths).toBeGreaterThan(WHOLE ? 12 : 4);
    // A dozen or so of each: one may be missed. The bench has enough of them for a finer figure.
    // Of blips some last 20 ms while a tongued note has hardly begun: nobody would hear them.
    expect(hits).toBeGreaterThanOrEqual(Math.floor(truths * (kind === 'blip' ? 0.85 : 0.9)));
    expect(hits / heardOnes).toBeGreaterThanOrEqual(0.93);
    expect(errors[Math.floor(0.85 * errors.length)]).toBeLessThan(0.012);
  });
});

describe('the shape of a note', () => {
  it.each(IDS)('goes with the level as it was played, and says when it cannot tell (%s)', (id) => {
    const instrument = findInstrument(id)!;
    const score = randomFigure(instrument, 5, 1);
    const held = { ...score, tempo: 20, notes: score.notes.map((note) => ({ ...note, beats: 2 })) };
    const note = (swell: boolean) => {
      const { audio } = perform({
        score: held,
        instrument,
        player: {
          ...steadyPlayer,
          centsPer10Db: -7,
          levelDb: -14,
          scoopCents: 0,
          wobbleCents: 1,
          levelWobbleDb: 0.2,
        },
        seed: 9,
        sampleRate: RATE,
        a4: 440,
        leadSeconds: 0.5,
        tailSeconds: 0.5,
        ...(swell && { swellDb: (t: number, duration: number) => -18 * Math.abs((2 * t) / duration - 1) }),
      });
      const listener = new Listener(RATE, listeningRange(instrument));
      listener.push(audio);
      return hearNotes(listener.finish(), instrument).notes[0]!;
    };
    expect(Math.abs((note(true).centsPer10Db ?? NaN) + 7)).toBeLessThan(1);
    const steady = note(false);
    expect(steady.centsPer10Db).toBeNull();
    expect(steady.unknown['centsPer10Db']).toBe('steady-level');
    expect(steady.partialsDb).toHaveLength(16);
  });

  it('is told in the temperament that was asked for', () => {
    const flute = findInstrument('flute')!;
    const { heard } = hear(flute, 8, {});
    const plain = heard.notes[0]!;
    const offsets = Array.from({ length: 128 }, (_, midi) => (midi === plain.soundingMidi ? -13.7 : 0));
    const performance = hear(flute, 8, {}).performance;
    const listener = new Listener(RATE, listeningRange(flute));
    listener.push(performance.audio);
    const tempered = hearNotes(listener.finish(), flute, { offsets }).notes[0]!;
    expect(tempered.centreCents! - plain.centreCents!).toBeCloseTo(13.7, 6);
  });
});
