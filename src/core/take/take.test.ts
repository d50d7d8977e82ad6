import { heldNote } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { LEAD, lines, playIn } from '@/core/hearing/notes/inRooms.testing';
import { clickSamples } from '@/core/hearing/signal';
import { perform, steadyPlayer, type Player } from '@/core/lab';
import { takeOf, TakeListener, takeSchema, type TakeRequest } from '.';

const RATE = 48_000;
const COUNT_IN = 4;

const scoreFor = (beats = 6) => heldNote('flute', { beats });

function played(player: Partial<Player> = {}) {
  const flute = findInstrument('flute');
  if (!flute) throw new Error('flute');
  const options = { instrument: flute, seed: 3, sampleRate: RATE, a4: 440, leadSeconds: 4.5, tailSeconds: 2 };
  return perform({ ...options, score: scoreFor(), player: { ...steadyPlayer, ...player } }).audio;
}

const clicks = Array.from({ length: 12 }, (_, i) => ({ seconds: 0.5 + i, accent: i % 4 === 0 }));

/** Adds a loudspeaker's clicks to a recording, late by `lag`. */
function withClicks(audio: Float32Array, lag: number, gain: number): Float32Array {
  const out = audio.slice();
  for (const { seconds, accent } of clicks) {
    const at = Math.round((seconds + lag) * RATE);
    clickSamples(RATE, accent).forEach((x, i) => {
      if (at + i < out.length) out[at + i]! += gain * x;
    });
  }
  return out;
}

function heard(audio: Float32Array, change: Partial<TakeRequest> = {}) {
  const listener = new TakeListener({
    score: scoreFor(),
    instrument: findInstrument('flute')!,
    sampleRate: RATE,
    a4: 440,
    gainControlled: false,
    longestSeconds: 900,
    firstBeat: 0.5 + COUNT_IN,
    roundTrip: { seconds: 0.05, how: 'assumed' },
    ...change,
  });
  listener.addClicks(clicks);
  for (let at = 0; at < audio.length && !listener.full; at += 512)
    listener.push(at, audio.subarray(at, at + 512));
  return { take: listener.finish(), full: listener.full };
}

describe('a take with a metronome in the room', () => {
  it('learns the round trip from the count-in and is not misled by the clicks', () => {
    const { take } = heard(withClicks(played({ latenessSeconds: 0.083 + 0.03 }), 0.083, 0.15));
    expect(take.timing.roundTrip.how).toBe('measured');
    expect(take.timing.roundTrip.seconds).toBeCloseTo(0.083, 3);
    expect(take.notes).toHaveLength(1);
    const [note] = take.notes;
    expect(note?.centreCents).toBeCloseTo(steadyPlayer.offsetCents, 0);
    expect(Math.abs((note?.wobbleCents ?? 0) - steadyPlayer.wobbleCents)).toBeLessThan(0.5);
    expect(note?.startSeconds).toBeCloseTo(4.5 + 0.083 + 0.03, 1);
  });

  it('does not believe in clicks that are not there', () => {
    expect(heard(played()).take.timing.roundTrip).toEqual({ seconds: 0.05, how: 'assumed' });
  });

  it('does not take the count-in for a tone', () => {
    const silence = new Float32Array(9 * RATE);
    expect(heard(withClicks(silence, 0.02, 0.3)).take.notes).toEqual([]);
  });
});

test('a take that is begun in the middle of its music finds its repeated notes where they are due', () => {
  const flute = findInstrument('flute')!;
  const playing = lines(flute, 711);
  const { score } = playing;
  const beat = 60 / score.tempo!;
  const [from, lead] = [2, 0.4];
  const { audio } = playIn({ room: 'bad', place: 1 }, playing);
  const rest = audio.subarray(Math.round((LEAD + from * beat - lead) * RATE));
  const change = { score, roundTrip: { seconds: 0, how: 'exact' }, fromBeat: from } as const;
  const { take } = heard(rest, { ...change, firstBeat: lead });
  expect(take.timing.firstBeatSeconds).toBe(lead);
  const repeated = score.notes[from]!.written;
  const count = (notes: readonly { soundingMidi: number }[]) =>
    notes.filter(({ soundingMidi }) => soundingMidi === repeated).length;
  expect(count(take.notes)).toBe(2);
  const without = { ...score, notes: score.notes.filter((_, i) => i !== from + 1) };
  expect(count(heard(rest, { ...change, score: without, firstBeat: lead }).take.notes)).toBe(1);
});

describe('the end of a take', () => {
  it('is its longest length at the latest', () => {
    const { full, take } = heard(played(), { longestSeconds: 6 });
    expect(full).toBe(true);
    expect(take.durationSeconds).toBeLessThan(6.1);
  });

  it('keeps its time line when the capture drops samples', () => {
    const audio = played();
    const listener = new TakeListener({
      score: scoreFor(),
      instrument: findInstrument('flute')!,
      sampleRate: RATE,
      a4: 440,
      gainControlled: false,
      longestSeconds: 900,
      firstBeat: null,
      roundTrip: { seconds: 0, how: 'exact' },
    });
    listener.push(0, audio.subarray(0, 2 * RATE));
    listener.push(3 * RATE, audio.subarray(3 * RATE));
    const take = listener.finish();
    expect(take.durationSeconds).toBeCloseTo(audio.length / RATE, 3);
    expect(take.notes[0]?.startSeconds).toBeCloseTo(4.5 + steadyPlayer.latenessSeconds, 1);
  });
});

test('what is kept fits its schema, and says nothing of levels under gain control', () => {
  const { take } = heard(played(), { gainControlled: true });
  const conditions = {
    source: 'microphone',
    sourceName: 'm',
    sampleRate: RATE,
    a4: 440,
    temperament: 'Equal',
    offsets: null,
    processing: [],
    interruption: null,
  } as const;
  const kept = takeOf('a', new Date(0), scoreFor(), findInstrument('flute')!, take, {
    ...conditions,
    processing: ['gain-control'],
  });
  expect(takeSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
  expect(kept.notes[0]?.levelDb).toBeNull();
  expect(kept.notes[0]?.unknown['levelDb']).toBe('gain-control');
  expect(kept.notes[0]?.centreCents).not.toBeNull();
});
