import { defineFamily } from '../family';
import { choice, count, note, tempo } from '../parameters';
import { type Attack, type Role } from '../score';
import { type Writer } from '../writer';
import { semitonesOf } from './rows';

const WAYS = [
  ['tongued', 'tongued'],
  ['back', 'back of the tongue only'],
  ['breath', 'breath only'],
  ['slur-up', 'slurred up'],
  ['slur-down', 'slurred down'],
  ['up-softer', 'slurred up, getting softer'],
  ['down-louder', 'slurred down, getting louder'],
  ['triplets', 'all slurred, in triplets'],
] as const;
type Way = (typeof WAYS)[number][0];

const ROLES: Readonly<Record<Way, Role>> = {
  tongued: 'tongued',
  back: 'back-of-tongue',
  breath: 'breath-only',
  'slur-up': 'slurred-up',
  'slur-down': 'slurred-down',
  'up-softer': 'up-softer',
  'down-louder': 'down-louder',
  triplets: 'triplets',
};

function writeWay(writer: Writer, row: readonly number[], way: Way): void {
  const name = WAYS.find(([id]) => id === way)?.[1] ?? '';
  const role = ROLES[way];
  const down = [...row].reverse();
  const separate = (attack: Attack) =>
    row.forEach((written, i) => writer.note(written, 1, { attack, role, label: i === 0 ? name : null }));
  const joined = (notes: readonly number[], hairpin: 'grow' | 'fade' | null, beats = 1) =>
    notes.forEach((written, i) =>
      writer.note(written, beats, {
        attack: i === 0 ? 'tongued' : 'none',
        hairpin,
        role,
        label: i === 0 ? name : null,
      }),
    );
  if (way === 'tongued') separate('tongued');
  else if (way === 'back') separate('back-of-tongue');
  else if (way === 'breath') separate('breath');
  else if (way === 'slur-up') joined(row, null);
  else if (way === 'slur-down') joined(down, null);
  else if (way === 'up-softer') {
    writer.setDynamic('f');
    joined(row, 'fade');
  } else if (way === 'down-louder') {
    writer.setDynamic('p');
    joined(down, 'grow');
  } else {
    const round = [...row, ...down.slice(1)];
    while (round.length % 3 !== 0) round.push(row[0]!);
    joined(round, null, 1 / 3);
  }
  writer.setDynamic('mf');
  writer.fillBar(way !== 'triplets');
  writer.breathe();
}

export const eightWays = defineFamily({
  id: 'eight-ways',
  title: 'Flexibility in eight ways',
  section: 'seams',
  purposes: ['flexibility', 'attacks', 'the break'],
  what: 'The same row of notes in eight ways. What differs in the sound shows what the tongue, the breath and the slur do to it.',
  how: 'Play the row once in each of the eight ways, one note a beat, about 72 or slower. The two tongued attacks are not to be told apart; the breath-only one may begin less sharply, but its body matches.',
  listen: 'What changes and should not: the body of a note is the same, however it begins.',
  enough: 'Once through all eight. The way that differed most is worth a second time.',
  measured: 'Attacks against each other, bodies against each other, every slur, the hairpins.',
  specs: {
    from: note('First note'),
    notes: count('Notes', 3, 9),
    way: choice('Way', [['all', 'all eight'], ...WAYS]),
    tempo: tempo(40, 120),
  },
  counts: { measures: ['ways', 'seam', 'line', 'pitch', 'level', 'attack', 'rhythm'] },
  defaults: (instrument, level) => ({
    from: instrument.home,
    notes: level === 'beginner' ? 4 : 5,
    way: 'all' as const,
    tempo: 72,
  }),
  write(writer, { from, notes, way }) {
    const whole = Array.from({ length: notes }, (_, i) => semitonesOf(i + 1, 'major'));
    const top = whole[whole.length - 1]!;
    const start = Math.max(writer.low, Math.min(from, writer.high - top));
    const row = whole.map((up) => start + up).filter((written) => writer.has(written));
    for (const [id] of WAYS) if (way === 'all' || way === id) writeWay(writer, row, id);
  },
});
