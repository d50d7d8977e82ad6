import { thinned } from '@/core/base/thinned.testing';
import { heldNote } from '@/core/music/scores.testing';
import { findInstrument, listeningRange } from '@/core/instruments';
import { droneFrequencies, Listener, type ListenerOptions } from '@/core/hearing/signal';
import { Random } from '@/core/base';
import { perform, steadyPlayer } from '@/core/lab';
import { noteNumber } from '@/core/tuning';
import { hearNotes, type HearingOptions } from '.';

const RATE = 48_000;

function playedOn(id: string, name: string, offsetCents = -6): { audio: Float32Array; midi: number } {
  const instrument = findInstrument(id);
  if (!instrument) throw new Error(id);
  const { audio, notes } = perform({
    score: heldNote(id, { note: noteNumber(name), beats: 5 }),
    instrument,
    player: { ...steadyPlayer, offsetCents, wobbleCents: 0.5, driftCentsPerSecond: 0 },
    seed: 3,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: 1,
    tailSeconds: 0.5,
  });
  return { audio, midi: notes[0]!.soundingMidi };
}

/** A soft tone of sixteen falling partials, of about the player's level. */
function drone(length: number, pitch: number, level = 0.08): Float32Array {
  const out = new Float32Array(length);
  droneFrequencies([pitch], RATE).forEach((frequency, k) => {
    for (let i = 0; i < length; i++)
      out[i]! += (level / (k + 1)) * Math.sin((2 * Math.PI * frequency * i) / RATE + k);
  });
  return out;
}

const mixed = (...parts: Float32Array[]) =>
  Float32Array.from(parts[0]!, (_, i) => parts.reduce((sum, part) => sum + (part[i] ?? 0), 0));

function hear(
  id: string,
  audio: Float32Array,
  listening: ListenerOptions = {},
  options: HearingOptions = {},
) {
  const instrument = findInstrument(id);
  if (!instrument) throw new Error(id);
  const listener = new Listener(RATE, listeningRange(instrument), listening);
  listener.push(audio);
  return hearNotes(listener.finish(), instrument, options);
}

describe('a drone in the room', () => {
  const removed = droneFrequencies([220], RATE);

  it.each(
    thinned(
      [
        ['flute', 'F5'],
        ['oboe', 'C5'],
        ['clarinet-bb', 'G#4'],
      ],
      1,
    ),
  )('is taken out, and the note over it keeps its pitch (%s)', (id, name) => {
    const { audio, midi } = playedOn(id, name);
    const { notes, events } = hear(id, mixed(audio, drone(audio.length, 220)), { removed });
    expect(notes.map((note) => note.soundingMidi)).toEqual([midi]);
    expect(Math.abs((notes[0]?.centreCents ?? NaN) + 6)).toBeLessThan(1);
    expect(events).toEqual([]);
  });

  it('makes unknown what it covers, and says so', () => {
    // A fifth over the octave: every partial of the note lies on one of the drone's.
    const { audio } = playedOn('flute', 'E5', 2);
    const { notes } = hear('flute', mixed(audio, drone(audio.length, 220)), { removed });
    for (const note of notes) {
      expect(note.levelDb).toBeNull();
      expect(note.unknown).toMatchObject({ levelDb: 'drone', brightness: 'drone', centreCents: 'drone' });
    }
  });

  it('alone is nobody’s note', () => {
    expect(hear('flute', drone(3 * RATE, 220), { removed }).notes).toEqual([]);
  });
});

describe('someone else sounding along', () => {
  const { audio } = playedOn('flute', 'A5');

  it('makes pitch, level and colour unknown, and is no undertone', () => {
    const hum = drone(audio.length, 220 * 2 ** (0.2 / 12), 0.1);
    const { notes, events } = hear('flute', mixed(audio, hum), {}, { company: true });
    expect(events.filter((event) => event.kind === 'undertone')).toEqual([]);
    for (const note of notes) {
      expect([note.centreCents, note.levelDb, note.brightness, note.wobbleCents]).toEqual([
        null,
        null,
        null,
        null,
      ]);
      expect(note.unknown).toMatchObject({ centreCents: 'company', levelDb: 'company' });
    }
  });

  it('is told apart when its pitch was heard first', () => {
    const partner = drone(audio.length, 261.6);
    const removed = droneFrequencies([261.6], RATE);
    const { notes } = hear('flute', mixed(audio, partner), { removed });
    expect(notes.map((note) => Math.round(note.centreCents ?? NaN))).toEqual([-6]);
  });
});

describe('a recording that is no music', () => {
  const random = new Random(5);
  const noise = (seconds: number, level: number) =>
    Float32Array.from({ length: seconds * RATE }, () => level * random.normal());
  const hummingMains = Float32Array.from({ length: 2 * RATE }, (_, i) => 0.3 + 2e-4 * Math.sin(i * 0.0131));

  it.each([
    ['silence', new Float32Array(2 * RATE)],
    ['an offset with a hum below the instrument', hummingMains],
    ['loud noise', noise(2, 0.2)],
    ['soft noise', noise(2, 0.001)],
    ['no numbers', new Float32Array(RATE).fill(NaN)],
  ])('has no notes and no events: %s', (_, samples) => {
    for (const id of thinned(['contrabassoon', 'piccolo', 'flute', 'clarinet-bb'], 1))
      expect(hear(id, samples)).toMatchObject({ notes: [], events: [] });
  });

  it('is read as far as its band reaches, and no further', () => {
    const piccolo = findInstrument('piccolo')!;
    for (const frequency of thinned([1760, 3136, 3520, 3900], 2)) {
      const listener = new Listener(8000, listeningRange(piccolo));
      listener.push(
        Float32Array.from({ length: 16_000 }, (_, i) => 0.2 * Math.sin((2 * Math.PI * frequency * i) / 8000)),
      );
      const { notes } = hearNotes(listener.finish(), piccolo);
      for (const note of notes)
        expect(Math.abs(note.soundingMidi - (69 + 12 * Math.log2(frequency / 440)))).toBeLessThan(0.5);
      if (frequency < 3300) expect(notes).toHaveLength(1);
    }
  });

  it('of a fifth of a second is still measured', () => {
    const { audio, midi } = playedOn('flute', 'A5');
    const { notes } = hear('flute', audio.slice(2 * RATE, 2.2 * RATE));
    expect(notes).toHaveLength(1);
    expect(notes[0]).toMatchObject({ soundingMidi: midi, wobbleCents: null });
    expect(notes[0]?.unknown).toMatchObject({ wobbleCents: 'too-short', driftCentsPerSecond: 'too-short' });
  });

  it('keeps its pitch when it is clipped', () => {
    const { audio, midi } = playedOn('oboe', 'A4');
    const { notes } = hear(
      'oboe',
      audio.map((x) => Math.max(-1, Math.min(1, 30 * x))),
    );
    expect(notes.map((note) => note.soundingMidi)).toEqual([midi]);
    expect(notes[0]?.unknown).toMatchObject({ levelDb: 'clipped' });
  });
});
