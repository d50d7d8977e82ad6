import { thinned } from '@/core/base/thinned.testing';
import { heldNote, scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, listeningRange } from '@/core/instruments';
import { perform, steadyPlayer, type Player } from '@/core/lab';
import { Listener } from '@/core/hearing/signal';
import { hearNotes, ORDINARY_PURITY, type PurityLimits } from '.';
import { framesOf, playIn } from './inRooms.testing';

const RATE = 48_000;

function held(
  id: string,
  change: Partial<Player>,
  options: { written?: number; beats?: number; seed?: number; purity?: PurityLimits } = {},
) {
  const instrument = findInstrument(id);
  if (!instrument) throw new Error(id);
  const player = {
    ...steadyPlayer,
    wobbleCents: 0,
    levelWobbleDb: 0,
    driftCentsPerSecond: 0,
    levelDriftDbPerSecond: 0,
    scoopCents: 0,
    ...change,
  };
  const performance = perform({
    score: heldNote(id, { beats: options.beats ?? 6, note: options.written ?? instrument.home }),
    instrument,
    player,
    seed: options.seed ?? 1,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: 0.6,
    tailSeconds: 0.6,
  });
  const listener = new Listener(RATE, listeningRange(instrument));
  listener.push(performance.audio);
  const heard = hearNotes(listener.finish(), instrument, options.purity ? { purity: options.purity } : {});
  expect(heard.notes).toHaveLength(1);
  return { note: heard.notes[0]!, truth: performance.notes[0]!, heard };
}

const everyKind = thinned(['flute', 'recorder-alto', 'oboe', 'clarinet-bb', 'bassoon'], 2);

describe.each(everyKind)('one long tone on the %s', (id) => {
  it('has its centre, times, level and name', () => {
    const { note, truth } = held(id, { offsetCents: -13, latenessSeconds: 0.04 });
    expect(note.soundingMidi).toBe(truth.soundingMidi);
    expect(note.centreCents).toBeCloseTo(-13, 0);
    expect(Math.abs(note.startSeconds - truth.startSeconds)).toBeLessThan(0.04);
    expect(Math.abs(note.endSeconds - truth.endSeconds)).toBeLessThan(0.1);
    expect(note.levelDb).toBeCloseTo(-20, 0);
    expect(note.vibrato).toBeNull();
    expect(note.wobbleCents).toBeLessThan(0.5);
  });

  it('has its drift in pitch and level', () => {
    const { note } = held(id, { driftCentsPerSecond: -2.4, levelDriftDbPerSecond: -0.8 });
    expect(note.driftCentsPerSecond).toBeCloseTo(-2.4, 0);
    expect(note.levelDriftDbPerSecond).toBeCloseTo(-0.8, 0);
  });

  it('tells vibrato from wobble', () => {
    const { note } = held(id, { vibrato: { rateHz: 5.4, extentCents: 18 }, wobbleCents: 1 });
    expect(Math.abs((note.vibrato?.rateHz ?? 0) - 5.4)).toBeLessThan(0.15);
    expect(Math.abs((note.vibrato?.extentCents ?? 0) - 18)).toBeLessThan(1.8);
    const wobbling = held(id, { wobbleCents: 6 }, { beats: 10 }).note;
    expect(wobbling.vibrato).toBeNull();
    expect(Math.abs((wobbling.wobbleCents ?? 0) - 6)).toBeLessThan(0.9);
  });
});

describe('purity', () => {
  it('ends when the pitch leaves its limits', () => {
    // 4 cents a second from about the reference half-way through the first second leaves ±10 cents after about 3 s.
    const { note } = held('flute', { driftCentsPerSecond: -4 });
    expect(note.puritySeconds).toBeGreaterThan(2.5);
    expect(note.puritySeconds).toBeLessThan(3.8);
  });

  it('ends when the level falls', () => {
    expect(held('oboe', { levelDriftDbPerSecond: -3 }).note.puritySeconds).toBeLessThan(3.5);
  });

  it('lasts as long as a steady tone', () => {
    expect(held('flute', {}).note.puritySeconds).toBeGreaterThan(5.7);
  });

  it('is nothing where vibrato sounds and none was asked for', () => {
    const vibrato = { rateHz: 5, extentCents: 15 };
    expect(
      held('flute', { vibrato }, { purity: { ...ORDINARY_PURITY, vibratoAllowed: false } }).note
        .puritySeconds,
    ).toBe(0);
    expect(held('flute', { vibrato }).note.puritySeconds).toBeGreaterThan(4);
  });
});

describe('attack', () => {
  it('tells a slow rise from a quick one and finds a scoop', () => {
    const quick = held('clarinet-bb', { riseSeconds: 0.03 }).note.attack;
    const slow = held('clarinet-bb', { riseSeconds: 0.16, scoopCents: -40 }).note.attack;
    expect(Math.abs((slow.riseSeconds ?? 0) - 0.16)).toBeLessThan(0.03);
    expect(quick.riseSeconds).toBeLessThan(0.06);
    expect(slow.scoopCents).toBeLessThan(-5);
    expect(Math.abs(quick.scoopCents ?? 99)).toBeLessThan(2);
  });
});

describe('the rise of a note', () => {
  const octaves = scoreOfFamily('octave-slurs', 'clarinet-bb', { tempo: null });
  const clarinet = findInstrument('clarinet-bb')!;
  const rises = (room: 'living' | null) => {
    const { performance, audio } = playIn(
      { room, place: 1 },
      { score: octaves, instrument: clarinet, seed: 1 },
    );
    const { notes } = hearNotes(framesOf(audio, clarinet), clarinet);
    expect(notes.length).toBe(performance.notes.length);
    return notes.map(({ attack, unknown }, i) => ({
      isSlurred: performance.notes[i]!.slurred,
      rise: attack.riseSeconds ?? unknown['riseSeconds'],
    }));
  };

  it('is none where it is slurred to', () => {
    for (const { isSlurred, rise } of rises(null))
      if (isSlurred) expect(rise).toBe('masked');
      else expect(rise).toBeLessThan(0.12);
  });

  it('is the room’s where that rings', () => {
    for (const { rise } of rises('living')) expect(rise).toBe('room');
  });
});

it('says why a figure is missing', () => {
  const { note } = held('flute', {}, { beats: 2, written: 69 });
  expect(note.unknown).toEqual({ centsPer10Db: 'steady-level' });
  const clipped = held('flute', { levelDb: 3 }).note;
  expect(clipped.levelDb).toBeNull();
  expect(clipped.unknown['levelDb']).toBe('clipped');
});
