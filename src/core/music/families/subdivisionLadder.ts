import { defineFamily } from '../family';
import { choice, count, dynamic, note, strictTempo } from '../parameters';

const LADDER = [1, 2, 4, 8, 12, 16] as const;

export const subdivisionLadder = defineFamily({
  id: 'subdivision-ladder',
  title: 'Subdivision ladder',
  section: 'rhythm',
  purposes: ['time', 'attacks'],
  what: 'One, two, four, eight, twelve, sixteen attacks a bar and back: where do you rush, where do you drag?',
  how: 'One note at 60, every attack alike: one a bar, then two, four and so on, and back. The bar stays the same length whatever is in it.',
  listen: 'Are twelve in a bar even? Does the single note on the way back come on time?',
  enough: 'Up and down twice. Where it rushed, stay on that step.',
  measured:
    'Offset of every attack from its place, mean and spread at each step of the ladder, evenness of the attacks.',
  vibrato: 'free',
  specs: {
    note: note('Note'),
    top: choice('Up to', [
      ['4', '4'],
      ['8', '8'],
      ['12', '12'],
      ['16', '16'],
    ]),
    bars: count('Bars each', 1, 4),
    dynamic: dynamic(),
    tempo: strictTempo(40, 120),
  },
  counts: { measures: ['rhythm', 'ladder', 'attack'], feeds: { map: false, seams: false, trends: true } },
  defaults: (instrument, level) => ({
    note: instrument.home,
    top: level === 'beginner' ? ('4' as const) : ('16' as const),
    bars: 1,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { note: written, top, bars }) {
    const up = LADDER.filter((each) => each <= Number(top));
    for (const attacks of [...up, ...up.slice(0, -1).reverse()]) {
      for (let i = 0; i < attacks * bars; i++)
        writer.note(written, 4 / attacks, { label: i === 0 ? String(attacks) : null });
    }
  },
});
