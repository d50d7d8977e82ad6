import { median } from '@/core/base';
import { figure, isKnown, valueOf, wholeOf } from '../figure';
import { numbers, type Measure } from '../measure';
import { known, playedNotes } from '../reading';
import { ms } from './held';
import { unknownRise } from './rise';

/** A beginning this far from its note’s middle is heard as from below or above. */
const SCOOP_CENTS = 12;

/** How notes began: quickly or softly, at their pitch or from below. What spoke late is an event of its own. */
export const attack: Measure = {
  measure(reading) {
    const pairs = playedNotes(reading).filter(({ match }) => !match.group.slurred);
    const groups = pairs.map(({ match }) => match.group.index);
    const rises = known(pairs.map(({ note }) => ms(note.attack.riseSeconds)));
    const scoops = known(pairs.map(({ note }) => note.attack.scoopCents));
    const [first] = pairs;
    return numbers([
      ...(first
        ? [
            figure(
              'rise',
              rises.length > 0 ? median(rises) : null,
              { groups, n: rises.length },
              first.note.unknown['riseSeconds'],
            ),
          ]
        : []),
      ...(scoops.length > 0 ? [figure('scoop', median(scoops), { groups, n: scoops.length })] : []),
    ]);
  },
  say(figures, { faults, matches }) {
    const rise = wholeOf(figures, 'rise');
    const scoop = valueOf(figures, 'scoop');
    const late = faults.filter(({ kind }) => kind === 'late-speech').length;
    return {
      headline: matches.some(({ state }) => state === 'blurred' || state === 'hidden')
        ? 'What could be told apart spoke at once'
        : 'Every note spoke at once',
      lines: {
        ...(rise && {
          rise:
            (late > 0
              ? `${late === 1 ? 'One note' : `${late} notes`} spoke late.`
              : 'The notes spoke at once.') + (isKnown(rise) ? '' : ` ${unknownRise(rise.unknown)}`),
        }),
        ...(scoop !== null && {
          scoop:
            Math.abs(scoop) < SCOOP_CENTS
              ? 'The notes began at their pitch.'
              : `The notes began from ${scoop < 0 ? 'below' : 'above'}.`,
        }),
      },
    };
  },
};
