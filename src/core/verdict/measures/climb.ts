import { median, type Midi } from '@/core/base';
import { modeOf } from '@/core/instruments';
import { leaning } from '@/core/tuning';
import type { Match } from '@/core/hearing/matching';
import { beyondEither, faultAt } from '../beyond';
import { figure, figuresAt, isKnown, most, wholeOf, type Figure } from '../figure';
import { NOTHING, numbers, SILENT, type Measure } from '../measure';
import { centsOff, pitchOf, playedAs, playedNote, scoreNoteOf } from '../reading';
import { because, listed, ordinal, plural, sized } from '../words';

const harmonicsIn = (score: Parameters<typeof scoreNoteOf>[0]['score'], matches: readonly Match[]) =>
  matches.filter(({ group }) => scoreNoteOf({ score }, group).fingered !== null);

/** Modes of one fingering one after the other: reached or not, and where they lie. */
export const climb: Measure = {
  measure(reading) {
    const { score, alignment, instrument } = reading;
    const all = harmonicsIn(score, alignment.matches).filter(({ state }) => state !== 'unplayed');
    if (all.length === 0) return NOTHING;
    const ordinary = new Map<Midi, number[]>();
    for (const { match, note } of playedAs(reading, 'ordinary')) {
      const { written } = match.group;
      ordinary.set(written, [...(ordinary.get(written) ?? []), pitchOf(reading, note)]);
    }
    const rows = all.flatMap((match): Figure[] => {
      const at = { at: match.group.index };
      const mode = scoreNoteOf(reading, match.group).mode ?? modeOf(instrument, match.group.written);
      const note = playedNote(reading, match);
      if (!note) return [];
      const off = centsOff(reading, { match, note });
      const plain = ordinary.get(match.group.written);
      return [
        figure('mode', mode, at),
        figure('mode-off', off, at, 'no-fundamental'),
        ...(plain ? [figure('mode-ordinary', 100 * (pitchOf(reading, note) - median(plain)), at)] : []),
      ];
    });
    const groups = all.map(({ group }) => group.index);
    const off = figuresAt(rows, 'mode-off');
    return numbers([
      ...rows,
      figure('modes-reached', figuresAt(rows, 'mode').length, { groups, n: all.length, of: all.length }),
      figure(
        'mode-cents',
        off.length > 0 ? median(off.map(({ value }) => value)) : null,
        { groups: off.map(({ at }) => at), n: off.length },
        'no-fundamental',
      ),
    ]);
  },
  judge(figures, judging) {
    const reached = new Set(figuresAt(figures, 'mode').map(({ at }) => at));
    return [
      ...harmonicsIn(judging.score, judging.matches)
        .filter(({ state, group }) => state !== 'unplayed' && !reached.has(group.index))
        .map(({ group }) => faultAt(judging, group.index, 'mode-missed', 2, null)),
      ...figuresAt(figures, 'mode-off').flatMap((each) =>
        beyondEither(judging, each, judging.limits.intervalCents, ['mode-low', 'mode-high']),
      ),
    ];
  },
  say(figures, { limits, score, matches, nameAt }) {
    const reached = wholeOf(figures, 'modes-reached');
    if (!isKnown(reached)) return SILENT;
    const modes = figuresAt(figures, 'mode');
    const top = Math.max(1, ...modes.map(({ value }) => value));
    const done = new Set(modes.map(({ at }) => at));
    const lost = harmonicsIn(score, matches).filter(
      ({ group, state }) => state !== 'unplayed' && !done.has(group.index),
    );
    const cents = wholeOf(figures, 'mode-cents');
    const offs = figures.filter(({ id, at }) => id === 'mode-off' && at !== null);
    const known = figuresAt(figures, 'mode-off');
    const outside = known.filter(({ value }) => Math.abs(value) > limits.intervalCents);
    const worst = most(outside);
    return {
      headline: `Every mode up to the ${ordinal(top)} spoke`,
      lines: {
        'modes-reached':
          lost.length === 0
            ? 'Every mode spoke.'
            : `Not reached: ${listed(lost.map(({ group }) => nameAt(group.index)))}.`,
        'mode-cents': !isKnown(cents)
          ? because(cents?.unknown ?? 'no-fundamental')
          : !worst
            ? known.length === offs.length
              ? 'Every mode lay where the tube has it.'
              : `${known.length} of ${offs.length} modes lay where the tube has it; of the others it is not known.`
            : outside.length < known.length
              ? `${outside.length} of ${plural(known.length, 'mode')} lay elsewhere than the tube has it, ${nameAt(worst.at)} most, ${leaning(worst.value)}.`
              : `The modes lay ${sized(cents.value, 'cents')} ${cents.value > 0 ? 'above the multiples of the fundamental: more push than is needed' : 'below the multiples of the fundamental'}.`,
      },
    };
  },
  draw({ figures }, { score, matches, nameOf, nameAt }) {
    const off = new Map(figuresAt(figures, 'mode-off').map(({ at, value }) => [at, value]));
    const plain = new Map(figuresAt(figures, 'mode-ordinary').map(({ at, value }) => [at, value]));
    const done = new Set(figuresAt(figures, 'mode').map(({ at }) => at));
    const bottoms = [
      ...new Set(harmonicsIn(score, matches).map(({ group }) => scoreNoteOf({ score }, group).fingered!)),
    ];
    return bottoms.map((fingered) => ({
      kind: 'rows' as const,
      title: `Modes of ${nameOf(fingered)}, against its multiples`,
      form: 'deviations' as const,
      reach: 25,
      sides: ['low', 'high'] as const,
      rows: harmonicsIn(score, matches)
        .filter(
          ({ group, state }) => state !== 'unplayed' && scoreNoteOf({ score }, group).fingered === fingered,
        )
        .map(({ group: { index, from } }) => {
          const ordinary = plain.get(index);
          const value = off.get(index) ?? null;
          return {
            name: [ordinal(score.notes[from]!.mode ?? 1), nameAt(index)].join(': '),
            value,
            text: !done.has(index)
              ? 'not reached'
              : `${value === null ? 'reached' : leaning(value)}${ordinary === undefined ? '' : ` · ${leaning(ordinary)} against the ordinary fingering`}`,
          };
        }),
    }));
  },
};
