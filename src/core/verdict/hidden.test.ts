import { scoreOfFamily } from '@/core/music/scores.testing';
import { asWritten, judgedAsWritten, kindsOf, said, sentenceOf, wholeValue } from './asWritten.testing';
import { judge, limitsOf } from '.';

describe('what the noise of a room hides', () => {
  const window = scoreOfFamily('dynamic-window', 'flute');
  const soft = (group: { readonly from: number }) => window.notes[group.from]!.dynamic === 'pp';
  const first = window.notes.findIndex(({ dynamic }) => dynamic === 'pp');
  const heardOver = (floorDb: number, scrap?: { semitonesOff: number; centreCents?: number }) =>
    judgedAsWritten(window, {
      note: (group) =>
        group.from !== first
          ? { levelDb: soft(group) ? -40 : -15 }
          : scrap
            ? {
                levelDb: -42,
                soundingMidi: group.sounding + scrap.semitonesOff,
                centreCents: scrap.centreCents ?? 0,
                endSeconds: 1.2,
                startSeconds: 1.1,
              }
            : null,
      conditions: { floorDb },
    });

  it('is a soft note that was not missed, and is said to be unknown with the reason', () => {
    const judgement = heardOver(-48);
    expect(kindsOf(judgement)).toEqual([]);
    expect(sentenceOf(judgement, 'notes-played')).toMatch(
      /^\d+ of \d+ notes were heard as written\. How C4 sounded is not known: the noise of the room/,
    );
    expect(said(judgement).notes[first]!.word).toBe('hidden in noise');
  });

  it('is one of which a scrap of another pitch flared up', () => {
    expect(kindsOf(heardOver(-48, { semitonesOff: -2 }))).toEqual([]);
    expect(kindsOf(heardOver(-80, { semitonesOff: -2 }))).not.toEqual([]);
  });

  it('is one of which a scrap was heard, whose pitch is nobody’s', () => {
    const sharp = { semitonesOff: 0, centreCents: 18 };
    expect(kindsOf(heardOver(-48, sharp))).toEqual([]);
    expect(kindsOf(heardOver(-80, sharp))).toContain('steadily-high');
  });

  it('is either of two notes of one pitch, whichever the one that was heard is taken for', () => {
    const judgement = judgedAsWritten(window, {
      // The soft one was hidden; without a beat the loud one is taken for it.
      note: (group) =>
        group.from === first + 1
          ? null
          : { levelDb: soft(group) && group.from !== first ? -40 : -15, soundingMidi: group.sounding },
      timing: { firstBeatSeconds: null },
      conditions: { floorDb: -48 },
    });
    expect(kindsOf(judgement)).toEqual([]);
  });

  it('is nothing where soft notes stand well over it', () => {
    expect(kindsOf(heardOver(-70))).toEqual(['missed']);
  });
});

test('of a ladder whose beginnings run together in echoes no time is told, and the reason is said', () => {
  const ladder = scoreOfFamily('subdivision-ladder', 'bassoon');
  const seconds = ladder.notes.length;
  const judgement = judgedAsWritten(ladder, {
    // One long sound over most of it, and another that begins anywhere.
    note: ({ index }) =>
      index === 0 ? { endSeconds: 0.8 * seconds } : index === ladder.notes.length - 1 ? {} : null,
    conditions: { room: { decaySeconds: 0.6, spreadDb: 4.3 } },
  });
  expect(kindsOf(judgement)).toEqual([]);
  expect(wholeValue(judgement, 'attack-spread')).toBeNaN();
  expect(sentenceOf(judgement, 'offset')).toMatch(/^Not known: too many beginnings ran together/);
  expect(sentenceOf(judgement, 'hardest-step')).toMatch(/^Not known: too many beginnings/);
});

test('of a row that was left in free time no more is said to be unplayed than the time tells', () => {
  const ladder = scoreOfFamily('subdivision-ladder', 'bassoon');
  const count = ladder.notes.length;
  /** Twenty notes a quarter of a second apart: of the last fourteen each two are one sound. */
  const heardIn = (decaySeconds: number) =>
    sentenceOf(
      judgedAsWritten(
        { ...ladder, notes: ladder.notes.map((note, i) => ({ ...note, startBeat: i, beats: 1 })) },
        {
          note: ({ index: i }) =>
            i < 6
              ? { startSeconds: i / 4, endSeconds: i / 4 + 0.25 }
              : i < 13
                ? {
                    startSeconds: 1.5 + (i - 6) / 2,
                    endSeconds: 2 + (i - 6) / 2 + (i === 12 ? decaySeconds : 0),
                  }
                : null,
          timing: { firstBeatSeconds: null },
          conditions: { room: { decaySeconds, spreadDb: 4.3 } },
        },
      ),
      'notes-played',
    );
  expect(heardIn(0.6)).toMatch(
    new RegExp(
      `^13 notes were played as written. In this room 7 notes \\(C3 7 times\\) could not be told from the same note beside them. The last ${count - 20} notes of ${count} were not played.`,
    ),
  );
  expect(heardIn(0.1)).toContain(`The last ${count - 13} notes of ${count} were not played.`);
});

test('of a row of which one long sound was heard, it is taken to be as quick as asked', () => {
  const ladder = scoreOfFamily('subdivision-ladder', 'bassoon');
  const beat = 60 / ladder.tempo!;
  const judged = (seconds: number) =>
    judgedAsWritten(
      { ...ladder, notes: ladder.notes.map((note, i) => ({ ...note, startBeat: i, beats: 1 })) },
      {
        note: ({ index }) => (index === 0 ? { startSeconds: 0, endSeconds: seconds + 0.6 } : null),
        timing: { firstBeatSeconds: null },
        conditions: { room: { decaySeconds: 0.6, spreadDb: 4.3 } },
      },
    );
  const left = (seconds: number) => sentenceOf(judged(seconds), 'notes-played');
  const count = ladder.notes.length;
  expect(left(9 * beat)).toContain('In this room 8 notes (C3 8 times) could not be told');
  expect(left(9 * beat)).toContain(`The last ${count - 9} notes of ${count} were not played.`);
  expect(said(judged(9 * beat)).headline).toBe('What could be told apart spoke at once');
  expect(sentenceOf(judged(9 * beat), 'offset')).toMatch(/^Not known: there was no beat/);
  // What is not known stands after what is.
  expect(said(judged(9 * beat)).summary).toMatch(
    /The notes spoke at once\. The notes began at their pitch\.$/,
  );
  expect(said(judged(beat)).headline).toBe('Every note spoke at once');
  expect(left(beat)).toContain(`The last ${count - 1} notes of ${count} were not played.`);
});

test('of a room of which nothing is known steps are judged as in an ordinary one', () => {
  const octaves = scoreOfFamily('octave-slurs', 'flute');
  const stepped = (room: { decaySeconds: null; spreadDb: number | null } | null) =>
    kindsOf(
      judge(
        asWritten(octaves, { slur: () => ({ levelStepDb: 10 }), conditions: { room } }),
        limitsOf('steady'),
      ),
    );
  expect(stepped({ decaySeconds: null, spreadDb: null })).toEqual([]);
  expect(stepped({ decaySeconds: null, spreadDb: 0.4 })).toEqual(['bump']);
});

describe('how a note was held that may be two', () => {
  const groups = scoreOfFamily('three-note-groups', 'recorder-tenor');
  const again = groups.notes.findIndex(({ written }, i) => i > 0 && groups.notes[i - 1]!.written === written);
  const moving = { wobbleCents: 9, driftCentsPerSecond: 6, levelDriftDbPerSecond: -3 } as const;
  /** The note before the one that is tongued again moves, and lasts as long as both where the second was not heard. */
  const heard = (isOne: boolean) =>
    judgedAsWritten(groups, {
      note: ({ index, beats, startBeat }) => {
        if (index === again) return isOne ? null : {};
        const seconds = (b: number) => (60 / groups.tempo!) * b;
        if (index !== again - 1) return {};
        return isOne ? { ...moving, endSeconds: seconds(startBeat + 2 * beats) } : moving;
      },
      conditions: { room: { decaySeconds: 0.4, spreadDb: 4.3 } },
    });

  it('is not known: in its middle the tone was stopped', () => {
    const judgement = heard(true);
    expect(kindsOf(judgement)).toEqual([]);
    expect(said(judgement).notes[again]!.word).toBe('not told apart');
    expect(said(judgement).notes[again - 1]!.manner).toBe('');
  });

  it('is told where both were heard', () => {
    expect(kindsOf(heard(false))).toContain('unsteady');
    expect(said(heard(false)).notes[again - 1]!.manner).toBe('unsteady, 9 cents');
  });
});
