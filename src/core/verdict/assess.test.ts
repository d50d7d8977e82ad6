import { heldNote } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { NO_BEAT, type Timing } from '@/core/take';
import { LiveWords } from '@/core/hearing/following';
import { emptyTake } from '@/core/take/takes.testing';
import { judge, limitsOf } from '.';

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
  judge(emptyTake({ score, timing, notes: [{ ...note, ...change }] }), limits);
const sentence = (id: string, ...rest: Parameters<typeof verdict>) =>
  verdict(...rest).findings.find((finding) => finding.id === id)?.sentence;

describe('the words about a long tone', () => {
  it('say first where it sat and what it did', () => {
    expect(verdict({}).headline).toBe('8 low and steady');
    expect(verdict({ centreCents: 0.4 }).headline).toBe('True and steady');
    expect(verdict({ driftCentsPerSecond: -1.6 }).headline).toBe('8 low and sinking');
    expect(verdict({ vibrato: { rateHz: 5, extentCents: 12 } }).headline).toBe('8 low with vibrato');
  });

  it('use the written name, and say when another note was played', () => {
    expect(verdict({}).summary).toMatch(/^C5 lasted 8\.0 s/);
    expect(verdict({ soundingMidi: 72 }).headline).toBe('D5, not C5');
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
    expect(sentence('purity', { puritySeconds: 3 })).toBe('Pure for the first 3.0 s.');
  });

  it('take the round trip off the attack', () => {
    const timing: Timing = {
      firstBeatSeconds: 0.9,
      roundTrip: { seconds: 0.06, how: 'measured' },
      resumed: [],
    };
    const { findings } = verdict({}, scoreOf(), timing);
    expect(findings.find((finding) => finding.id === 'latency')?.value).toBe('40');
  });

  it('say so when nothing was heard', () => {
    expect(judge(emptyTake(), limits).headline).toBe('No tone was heard');
  });
});

describe('the big word', () => {
  const after = (seconds: number, cents: (t: number) => number, level: (t: number) => number = () => -20) => {
    const words = new LiveWords();
    for (let t = 0; t < seconds; t += 0.0054) words.push(t, cents(t), level(t));
    return words.now.word;
  };
  it('says only what to change', () => {
    expect(after(1, () => NaN)).toBe('play');
    expect(after(1, () => 2)).toBe('hold');
    expect(after(1, () => -9)).toBe('9 low');
    expect(after(1, () => 150)).toBe('too high');
    expect(
      after(
        3,
        () => 1,
        (t) => -20 - 3 * t,
      ),
    ).toBe('fading');
  });
});
