import { perColour } from '@/core/base';
import { heldNote } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { NO_BEAT, type Timing } from '@/core/take';
import { emptyTake } from '@/core/take/takes.testing';
import { findInstrument } from '@/core/instruments';
import { judge, limitsOf, say, valueOf } from '.';

const scoreOf = (values: Record<string, unknown> = {}) => heldNote('clarinet-bb', values);

/** Written C5 on the Bb clarinet sounds Bb4. */
const note: Note = {
  startSeconds: 1,
  endSeconds: 9,
  soundingMidi: 70,
  writtenName: 'C5',
  mode: 3,
  register: 'clarion',
  centreCents: -8.2,
  driftCentsPerSecond: 0.1,
  wobbleCents: 1,
  vibrato: null,
  levelDb: -20,
  levelDriftDbPerSecond: 0,
  levelWobbleDb: 0.4,
  centsPer10Db: null,
  ...perColour(() => null),
  brightness: 2,
  richness: 9,
  airinessDb: -35,
  oddEvenDb: 12,
  partialsDb: [],
  puritySeconds: 8,
  attack: { riseSeconds: 0.04, scoopCents: 0, speechSeconds: 0 },
  unknown: {},
};

const limits = limitsOf('steady');
const verdict = (change: Partial<Note>, score = scoreOf(), timing: Timing = NO_BEAT) =>
  say(judged(change, score, timing), 'english');
const judged = (change: Partial<Note>, score = scoreOf(), timing: Timing = NO_BEAT) =>
  judge(
    emptyTake({ score, instrument: findInstrument('clarinet-bb')!, timing, notes: [{ ...note, ...change }] }),
    limits,
  );
const sentence = (id: string, ...rest: Parameters<typeof verdict>) =>
  verdict(...rest).findings.find((finding) => finding.id === id)?.sentence;

describe('the words about a long tone', () => {
  it('say first where it sat and what it did', () => {
    expect(verdict({ centreCents: -14 }).headline).toBe('C5 was 14 cents low');
    expect(verdict({ centreCents: 0.4 }).headline).toBe('C5 in tune and steady');
    expect(verdict({ centreCents: -5 }).headline).toBe('C5 5 cents low and steady');
    expect(verdict({ centreCents: 0, driftCentsPerSecond: -3 }).headline).toMatch(/^C5 sank/);
    const swung = { centreCents: 2, vibrato: { rateHz: 5, extentCents: 12 } };
    expect(verdict(swung).headline).toBe('Vibrato in C5, 12 cents either way, where none was asked for');
    expect(verdict(swung, scoreOf({ vibrato: 'free' })).headline).toBe('C5 2 cents high with vibrato');
  });

  it('use the written name, and say when another note was played', () => {
    expect(sentence('centre', { centreCents: -5 })).toBe('C5 sat 5 cents low, within your limit.');
    expect(verdict({ soundingMidi: 72 }).headline).toBe('Another note came in place of C5');
    expect(verdict({ soundingMidi: 72 }).notes[0]!.word).toBe('D5 came');
  });

  it('give a reason in the place of a number that is not known', () => {
    const short = verdict({ wobbleCents: null, unknown: { wobbleCents: 'too-short' } });
    const wobble = short.findings.find((finding) => finding.id === 'wobble');
    expect(wobble).toMatchObject({ value: null, sentence: 'Not known: the note was too short to tell.' });
    expect(sentence('latency', {})).toMatch(/no beat/);
  });

  it('hold the player to what was asked for', () => {
    const vibrato = { rateHz: 5, extentCents: 12 };
    expect(sentence('vibrato', { vibrato })).toMatch(/none was asked for/);
    expect(sentence('vibrato', {}, scoreOf({ vibrato: 'wanted' }))).toMatch(/asked for; none/);
    expect(sentence('purity', { puritySeconds: 3 })).toBe('Pure for 3.0 of 8.0 s.');
  });

  it('take the round trip off the attack', () => {
    const timing: Timing = {
      firstBeatSeconds: 0.9,
      roundTrip: { seconds: 0.06, how: 'measured' },
      resumed: [],
    };
    expect(valueOf(judged({}, scoreOf(), timing).figures, 'latency')).toBeCloseTo(40, 6);
  });

  it('say so when nothing was heard', () => {
    expect(say(judge(emptyTake(), limits), 'english').headline).toBe('No tone was heard');
  });
});
