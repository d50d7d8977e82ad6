import { defineFamily } from '../family';
import { choice, count, dynamic, note, range, tempo } from '../parameters';
import type { Attack } from '../score';
import type { Writer } from '../writer';
import { MAJOR, stepwise } from './rows';

const WAYS = [
  ['all', 'all eight'],
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

function writeWay(writer: Writer, row: readonly number[], way: Way): void {
  const name = WAYS.find(([id]) => id === way)?.[1] ?? '';
  const down = [...row].reverse();
  const separate = (attack: Attack) =>
    row.forEach((written, i) => writer.note(written, 1, { attack, label: i === 0 ? name : null }));
  const joined = (notes: readonly number[], hairpin: 'grow' | 'fade' | null, beats = 1) =>
    notes.forEach((written, i) =>
      writer.note(written, beats, {
        attack: i === 0 ? 'tongued' : 'none',
        hairpin,
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
  how: 'One note a beat, about 72 or slower. The two tongued attacks are not to be told apart; the breath-only one may begin less sharply, but its body matches.',
  measured: 'Attacks against each other, bodies against each other, every slur, the hairpins.',
  specs: {
    from: note('First note'),
    notes: count('Notes', 3, 9),
    way: choice('Way', WAYS),
    tempo: tempo(40, 120),
  },
  counts: { measures: ['pitch', 'level', 'colour', 'attack', 'seam', 'sameness', 'rhythm'] },
  defaults: (instrument, level) => ({
    from: instrument.home,
    notes: level === 'beginner' ? 4 : 5,
    way: 'all' as const,
    tempo: 72,
  }),
  write(writer, { from, notes, way }) {
    const whole = Array.from({ length: notes }, (_, i) => MAJOR[i % 7]! + 12 * Math.floor(i / 7));
    const top = whole[whole.length - 1]!;
    const start = Math.max(writer.low, Math.min(from, writer.high - top));
    const row = whole.map((up) => start + up).filter((written) => writer.has(written));
    for (const [id] of WAYS.slice(1)) if (way === 'all' || way === id) writeWay(writer, row, id);
  },
});

export const lowChromatics = defineFamily({
  id: 'low-chromatics',
  title: 'Low-register chromatics',
  section: 'seams',
  purposes: ['the low notes', 'attacks'],
  what: 'Slowly down to the bottom: does it speak on the beat, at the right octave, and at what level?',
  how: 'Tongued, slurred, then with no tongue at all, then with a strong one.',
  measured: 'How late each note speaks, blips, level of the bottom against the rest.',
  specs: {
    range: range('From the bottom to', 2),
    attack: choice('Attack', [
      ['tongued', 'tongued'],
      ['slurred', 'slurred'],
      ['breath', 'no tongue'],
      ['strong', 'strong tongue'],
    ]),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'level', 'attack', 'seam', 'rhythm'] },
  defaults: (_instrument, _level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + 7) },
    attack: 'tongued' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, attack, beats }, { step }) {
    if (attack === 'strong') writer.setDynamic('f');
    const how: Attack = attack === 'slurred' ? 'none' : attack === 'breath' ? 'breath' : 'tongued';
    for (const written of stepwise(high, low, step)) writer.note(written, beats, { attack: how });
    writer.fillBar(true);
    writer.breathe();
    for (const written of stepwise(low, high, step)) writer.note(written, beats, { attack: how });
    writer.fillBar(true);
  },
});

export const registerTest = defineFamily({
  id: 'register-test',
  title: 'Register test note',
  section: 'seams',
  purposes: ['breath and air', 'the break'],
  what: 'A deliberately unstable fingering shows what air and lips do: a growl below means too little air speed or support, a squeak above means biting.',
  how: 'Loud and clear at first, then softer and softer. On the B flat clarinet: written G sharp 5 with thumb and register key and the first two fingers of each hand, the left third finger open. On another instrument, choose a note and an unstable fingering of your own.',
  measured: 'Undertones and squeaks, and at what level they come.',
  specs: {
    note: note('Note'),
    times: count('Times', 1, 6),
    beats: count('Each', 4, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['level', 'colour'], feeds: { map: false, seams: false, trends: true } },
  fixed: () => ({ longestSeconds: 240 }),
  defaults: (instrument) => ({
    note: instrument.id === 'clarinet-bb' ? 80 : (instrument.registers[1]?.low ?? instrument.home),
    times: 3,
    beats: 8,
    tempo: 60,
  }),
  write(writer, { note: written, times, beats }) {
    for (let i = 0; i < times; i++) {
      writer.setDynamic('f');
      writer.note(written, beats, { hairpin: 'fade', label: 'test fingering', hand: 'test' });
      writer.breathe();
      writer.fillBar();
      writer.rest(4);
    }
  },
});
