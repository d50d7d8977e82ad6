import { mean } from 'd3-array';
import { type Cents, median } from '@/core/base';
import { hertzToMidi, leaning as leaningText } from '@/core/tuning';
import type { Chart } from '../charts';
import { amountOf, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, most, valueOf, wholeOf, type Figure } from '../figure';
import { intervalName, justInterval } from '../justInterval';
import type { Limits } from '../limits';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { centsOff, pitchOf, playedNotes, scoreNoteOf, type Reading } from '../reading';
import { because, fixed, plural, sized } from '../words';
import { middleOf } from './tone';

/** Slower than this and a player hears the interval stand. */
const STILL_HZ = 0.7;

/** What the intervals are built on, as it sounds: the drone's, the chord's root, or what a partner was found to hold. */
function rootOf({ score, instrument, conditions, heldHz }: Reading): number | null {
  if (score.drone.length > 0) {
    const asked = score.parameters['root'];
    return typeof asked === 'number' ? asked + instrument.transposition : score.drone[0]!;
  }
  return heldHz === null ? null : hertzToMidi(heldHz, conditions.a4);
}

/** What is so near to pure is good tuning on a wind instrument, however fast its highest partials beat. */
const NEARLY_PURE: Cents = 5;
const leastImpure = ({ intervalCents }: Limits): Cents => Math.min(NEARLY_PURE, intervalCents / 2);

/** Intervals against what is held: pure ones, each note for itself, by its beats as by its cents. */
export const just: Measure = {
  measure(reading) {
    const root = rootOf(reading);
    if (root === null) return numbers([figure('just', null, {}, 'nothing-held-alone')]);
    const rows = playedNotes(reading).flatMap(({ match, note }): Figure[] => {
      const pitch = pitchOf(reading, note);
      if (!Number.isFinite(pitch) || note.centreCents === null) return [];
      const { cents, beatHz } = justInterval(pitch, match.group.sounding, root, reading.conditions.a4);
      const at = { at: match.group.index };
      return [figure('just-cents', cents, at), figure('beats-of-note', beatHz, at)];
    });
    if (rows.length === 0) return numbers([figure('just', null, {}, 'too-few')]);
    const cents = figuresAt(rows, 'just-cents');
    const groups = cents.map(({ at }) => at);
    return numbers([
      ...rows,
      figure('just', median(cents.map(({ value }) => Math.abs(value))), { groups, n: cents.length }),
      middleOf('beats', rows, 'beats-of-note'),
    ]);
  },
  judge(figures, judging) {
    const { limits } = judging;
    const beats = new Map(figuresAt(figures, 'beats-of-note').map((each) => [each.at, each]));
    return figuresAt(figures, 'just-cents').flatMap((each) => {
      const beat = beats.get(each.at);
      const inCents = Math.abs(each.value) / limits.intervalCents;
      const inBeats = (beat?.value ?? 0) / limits.beatsHz;
      if (Math.max(inCents, inBeats) <= 1 || Math.abs(each.value) < leastImpure(limits)) return [];
      const kind = each.value < 0 ? 'steadily-low' : 'steadily-high';
      if (inCents > 1)
        return [
          faultAt(judging, each.at, kind, Math.max(inCents, inBeats), amountOf(each, limits.intervalCents)),
        ];
      return [faultAt(judging, each.at, 'impure', inBeats, beat ? amountOf(beat, limits.beatsHz) : null)];
    });
  },
  say(figures, speaking) {
    const whole = wholeOf(figures, 'just');
    if (!whole) return SILENT;
    if (!isKnown(whole)) return { lines: { just: because(whole.unknown) }, headline: 'Not to be told apart' };
    const cents = figuresAt(figures, 'just-cents');
    const worst = cents.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a));
    const fastest = most(figuresAt(figures, 'beats-of-note'));
    const name = (at: number) => heldName(speaking, at);
    const pure = Math.round(Math.abs(worst.value)) === 0;
    return {
      headline: cents.length === 1 ? `A pure ${name(worst.at)}` : 'All near the pure intervals',
      lines: {
        just: `${cents.length === 1 ? 'The' : 'Furthest: the'} ${name(worst.at)} (${speaking.nameAt(worst.at)}), ${pure ? 'pure' : leaningText(worst.value)}.`,
        beats:
          !fastest || fastest.value < STILL_HZ
            ? 'The beats stood nearly still.'
            : `The fastest: ${speaking.nameAt(fastest.at)}, ${sized(fastest.value, 'beats a second', 1)}. Slow it to a standstill.`,
      },
    };
  },
  draw({ figures }, speaking): Chart[] {
    const rows = figuresAt(figures, 'just-cents');
    if (rows.length === 0) return [];
    const beats = new Map(figuresAt(figures, 'beats-of-note').map(({ at, value }) => [at, value]));
    return [
      {
        kind: 'rows',
        title: 'From the pure interval',
        form: 'deviations',
        reach: 20,
        sides: ['low', 'high'],
        rows: rows.map(({ at, value }) => ({
          name: `${heldName(speaking, at)} ${speaking.nameAt(at)}`,
          value,
          text: `${leaningText(value)} · ${fixed(beats.get(at) ?? 0, 1)} beats a second`,
          stands: speaking.faults.some(({ group }) => group === at),
        })),
      },
    ];
  },
};

/** What a note is over the root that the score names; over a partner's note just the note. */
function heldName({ score, instrument, matches }: Parameters<Measure['say']>[1], at: number): string {
  const asked = score.parameters['root'] ?? score.parameters['drone'];
  const root = typeof asked === 'number' ? asked + instrument.transposition : (score.drone[0] ?? null);
  return root === null ? 'interval' : intervalName(matches[at]!.group.sounding, root);
}

/** A mean within this leans neither way. */
const NEITHER_CENTS: Cents = 1.5;

/** What is shown as nothing lies on neither side. */
const SHOWN_CENTS: Cents = 0.05;

/** How many notes lay on which side of their pitch. */
function sidesOf(cents: readonly Cents[]): string {
  const above = cents.filter((each) => each >= SHOWN_CENTS).length;
  const below = cents.filter((each) => each <= -SHOWN_CENTS).length;
  const of = cents.length;
  if (of === 1) return `The one note lay ${above ? 'above' : below ? 'below' : 'at'} its pitch.`;
  return `${above} of ${of} notes lay above their pitch, ${below} of ${of} below.`;
}

/** Signed errors of notes that were played blind: a habit, not a score. */
export const leaning: Measure = {
  measure(reading) {
    const rows = playedNotes(reading).flatMap((pair): Figure[] => {
      const cents = centsOff(reading, pair);
      return cents === null ? [] : [figure('centre', cents, { at: pair.match.group.index })];
    });
    if (rows.length === 0) return NOTHING;
    const values = figuresAt(rows, 'centre').map(({ value }) => value);
    const groups = figuresAt(rows, 'centre').map(({ at }) => at);
    return numbers([...rows, figure('leaning', mean(values) ?? null, { groups, n: values.length })]);
  },
  say(figures, { limits, nameAt }) {
    const value = valueOf(figures, 'leaning');
    if (value === null) return SILENT;
    const way = Math.abs(value) < NEITHER_CENTS ? 'neither way' : value < 0 ? 'low' : 'high';
    const all = figuresAt(figures, 'centre');
    // A mean of notes that part to both sides says nothing of any of them.
    const outside = all.filter((each) => Math.abs(each.value - value) > limits.centreCents);
    const worst = most(outside);
    return {
      headline: worst
        ? `${outside.length} of ${plural(all.length, 'note')} off, most ${nameAt(worst.at)}, ${leaningText(worst.value)}`
        : way === 'neither way'
          ? 'You lean neither way'
          : `You lean ${way}, ${sized(value, 'cents')} on average`,
      lines: { leaning: sidesOf(figuresAt(figures, 'centre').map(({ value }) => value)) },
    };
  },
  draw({ figures }, { nameAt }) {
    const rows = figuresAt(figures, 'centre');
    return rows.length === 0
      ? []
      : [
          {
            kind: 'rows',
            title: 'Which way each note leant',
            form: 'deviations',
            reach: 20,
            sides: ['low', 'high'],
            rows: rows.map(({ at, value }) => ({ name: nameAt(at), value, text: leaningText(value) })),
          },
        ];
  },
};

/** Hardly more than can be told: loudness leaves the pitch where it is. */
const HARDLY_CENTS = 5;

/** A chromatic map, soft, medium and loud apart: the notes as they sit by themselves, which is no fault. */
export const scan: Measure = {
  measure(reading) {
    const pairs = playedNotes(reading);
    const rows = pairs.flatMap((pair): Figure[] => {
      const cents = centsOff(reading, pair);
      return cents === null ? [] : [figure('centre', cents, { at: pair.match.group.index })];
    });
    const centres = figuresAt(rows, 'centre');
    const of = (dynamic: string) =>
      centres.filter(({ at }) => scoreNoteOf(reading, reading.alignment.groups[at]!).dynamic === dynamic);
    const middle = (all: typeof centres) => median(all.map(({ value }) => value));
    const [soft, loud] = [of('p'), of('f')];
    if (centres.length < 3) return numbers(rows);
    return numbers([
      ...rows,
      middleOf('scan-middle', rows, 'centre'),
      ...(soft.length > 0 && loud.length > 0
        ? [
            figure('soft-loud', middle(loud) - middle(soft), {
              groups: [...soft, ...loud].map(({ at }) => at),
              n: Math.min(soft.length, loud.length),
            }),
          ]
        : []),
    ]);
  },
  say(figures, { nameAt }) {
    const middle = valueOf(figures, 'scan-middle');
    if (middle === null) return SILENT;
    const rows = figuresAt(figures, 'centre');
    const low = rows.reduce((a, b) => (b.value < a.value ? b : a));
    const high = rows.reduce((a, b) => (b.value > a.value ? b : a));
    const apart = valueOf(figures, 'soft-loud');
    return {
      headline: `${rows.length} notes on the map`,
      lines: {
        'scan-middle': `Lowest: ${nameAt(low.at)}, ${leaningText(low.value)}; highest: ${nameAt(high.at)}, ${leaningText(high.value)}.`,
        ...(apart !== null && {
          'soft-loud':
            Math.abs(apart) < HARDLY_CENTS
              ? 'Loudness hardly moves the pitch.'
              : `${sized(apart, 'cents')} ${apart > 0 ? 'higher' : 'lower'} when loud.`,
        }),
      },
    };
  },
  draw({ figures }, { score, matches, nameAt }): Chart[] {
    const rows = figuresAt(figures, 'centre');
    const dynamics = [...new Set(rows.map(({ at }) => scoreNoteOf({ score }, matches[at]!.group).dynamic))];
    return dynamics.map((dynamic) => ({
      kind: 'rows',
      title: `Where the notes sat, ${dynamic}`,
      form: 'deviations',
      reach: 25,
      sides: ['low', 'high'],
      rows: rows
        .filter(({ at }) => scoreNoteOf({ score }, matches[at]!.group).dynamic === dynamic)
        .map(({ at, value }) => ({ name: nameAt(at), value, text: leaningText(value) })),
    }));
  },
};
