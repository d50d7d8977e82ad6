import { groups as grouped } from 'd3-array';
import { median } from '@/core/base';
import { lengthOf } from '@/core/hearing/notes';
import { shortLeaning } from '@/core/tuning';
import { figure, figuresAt, valueOf, type Figure } from '../figure';
import { numbers, SILENT, type Measure } from '../measure';
import { centsOff, playedNotes } from '../reading';
import { fixed, plural } from '../words';
import { spreadOf } from './tone';

/** More notes than this are no table any more. */
const MOST_ROWS = 40;

/** What was played, note by note: how long in all, where each lay, how far it wandered, how loud it was. */
export const played: Measure = {
  measure(reading) {
    const pairs = playedNotes(reading);
    const seconds = pairs.reduce((sum, { note }) => sum + lengthOf(note), 0);
    const byNote = grouped(pairs, ({ match }) => match.group.written);
    const of = byNote.flatMap(([, same]): Figure[] => {
      const groups = same.map(({ match }) => match.group.index);
      const at = groups[0]!;
      const cents = same.flatMap((pair) => centsOff(reading, pair) ?? []);
      const levels = same.flatMap(({ note }) => note.levelDb ?? []);
      const rest = { at, groups, n: same.length };
      return [
        figure(
          'note-seconds',
          same.reduce((sum, { note }) => sum + lengthOf(note), 0),
          rest,
        ),
        figure('note-centre', median(cents), { ...rest, spread: spreadOf(cents), n: cents.length }),
        figure('note-level', median(levels), { ...rest, n: levels.length }),
      ];
    });
    return numbers([
      figure('sounded', seconds, { groups: pairs.map(({ match }) => match.group.index), n: pairs.length }),
      figure('notes-met', byNote.length, { n: pairs.length }),
      ...of,
    ]);
  },
  say(figures, { nameAt }) {
    const met = valueOf(figures, 'notes-met');
    if (met === null || met === 0) return SILENT;
    const longest = figuresAt(figures, 'note-seconds').reduce((a, b) => (b.value > a.value ? b : a));
    return {
      headline: `${plural(Math.round(met), 'note')} in ${fixed(valueOf(figures, 'sounded') ?? 0, 0)} s of sound`,
      lines: {
        sounded: `Most of all ${nameAt(longest.at)}, ${fixed(longest.value, 0)} s.`,
        'notes-met': 'Each is in the table, with where it lay; all of them go to the map.',
      },
    };
  },
  draw({ figures }, { matches, nameAt }) {
    const written = (at: number) => matches[at]?.group.written ?? 0;
    const at = (id: 'note-centre' | 'note-level') =>
      new Map(figuresAt(figures, id).map((each) => [each.at, each]));
    const [centres, levels] = [at('note-centre'), at('note-level')];
    const rows = figuresAt(figures, 'note-seconds')
      .sort((a, b) => written(a.at) - written(b.at))
      .map(({ at: place, value, n }) => {
        const centre = centres.get(place);
        const level = levels.get(place);
        return {
          name: nameAt(place),
          cells: [
            `${fixed(value, 1)} s, ${plural(n, 'time')}`,
            centre ? shortLeaning(centre.value) : 'not known',
            centre?.spread == null ? '–' : `± ${fixed(centre.spread, 0)} cents`,
            level ? `${fixed(level.value, 0)} dB` : 'not known',
          ],
        };
      });
    return rows.length === 0
      ? []
      : [
          {
            kind: 'table',
            title: 'What was played',
            columns: ['For', 'Lay', 'Wandered', 'Level'],
            rows: rows.slice(0, MOST_ROWS),
          },
        ];
  },
};
