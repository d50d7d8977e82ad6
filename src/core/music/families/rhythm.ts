import type { Midi } from '@/core/tuning';
import { Random } from '@/core/base';
import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, range, strictTempo } from '../parameters';
import { CIRCLE_OF_FOURTHS, KEY_OPTIONS, keyTitle, notesOfKey, tonicOf } from './rows';

const LADDER = [1, 2, 4, 8, 12, 16] as const;

export const subdivisionLadder = defineFamily({
  id: 'subdivision-ladder',
  title: 'Subdivision ladder',
  section: 'rhythm',
  purposes: ['time', 'attacks'],
  what: 'One, two, four, eight, twelve, sixteen attacks a bar and back: where do you rush, where do you drag?',
  how: 'At 60, one note, every attack alike. The bar stays the same length whatever is in it.',
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
  counts: { measures: ['rhythm', 'attack'], feeds: { map: false, seams: false, trends: true } },
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

/**
 * A walk through a row that turns anywhere, never rests on a note, reaches both ends, and ends where it began.
 * @throws RangeError for a row of fewer than two notes, in which nobody can walk.
 */
function roam(row: readonly Midi[], start: number, length: number, random: Random): number[] {
  if (row.length < 2) throw new RangeError(`a walk needs two notes or more, not ${row.length}`);
  const path = [start];
  const corners = random.next() < 0.5 ? [0, row.length - 1] : [row.length - 1, 0];
  let at = start;
  let target = corners.shift()!;
  let covered = false;
  while (!covered || path.length < length || at !== start) {
    const home = covered && path.length >= length;
    const due = home ? start : target;
    if (at === due) {
      covered ||= corners.length === 0;
      target = corners.shift() ?? Math.floor(random.next() * row.length);
      continue;
    }
    // Now and then a few notes the other way, so that the turns cannot be learnt; not when it is time to come home.
    const astray = path.length < length && random.next() < 0.18 ? 1 + Math.floor(random.next() * 3) : 0;
    const sign = Math.sign(due - at);
    for (let i = 0; i < astray && row[at - sign] !== undefined; i++) {
      at -= sign;
      path.push(at);
    }
    at += sign;
    path.push(at);
  }
  return path;
}

export const roamingScale = defineFamily({
  id: 'roaming-scale',
  title: 'Roaming scale',
  section: 'rhythm',
  purposes: ['time', 'flexibility', 'music'],
  what: 'One key, the whole range, turning anywhere: fingers and ears instead of habit.',
  how: 'Calm and clean at this tempo, then two notches up. Otherwise stop, take the place alone, slow down. An easy and a hard key each day.',
  measured: 'Rush and drag, evenness, swing ratio, every seam that is met, pitch by the way.',
  vibrato: 'free',
  specs: {
    key: choice('Key', KEY_OPTIONS),
    // Wide enough for two notes of the chord, wherever it lies, from a quarter-tone too.
    range: range('Within', 9),
    form: choice('Of', [
      ['scale', 'the scale'],
      ['arpeggio', 'the chord'],
    ]),
    swing: flag('Swung'),
    slurred: flag('Slurred'),
    bars: count('Bars', 4, 32),
    seed: count('Way', 1, 99),
    dynamic: dynamic(),
    tempo: strictTempo(40, 208),
  },
  counts: { measures: ['rhythm', 'pitch', 'seam', 'attack'] },
  fixed: ({ key, swing }) => ({ fifths: Number(key), swing }),
  defaults: (_instrument, level, { low, high }) => ({
    key: '0' as const,
    range: { low, high: Math.max(high, low + 9) },
    form: 'scale' as const,
    swing: false,
    slurred: false,
    bars: 8,
    seed: 1,
    dynamic: 'mf' as const,
    tempo: level === 'beginner' ? 60 : 76,
  }),
  write(writer, { key, range: { low, high }, form, slurred, bars, seed }) {
    const fifths = Number(key);
    const row = notesOfKey(fifths, low, high, form === 'arpeggio');
    const tonic = row.findIndex((written) => (written - tonicOf(fifths)) % 12 === 0);
    const path = roam(row, Math.max(0, tonic), 8 * bars - 2, new Random(seed));
    path.forEach((place, i) =>
      writer.note(row[place]!, i === path.length - 1 ? 2 : 0.5, {
        attack: slurred && i % 8 !== 0 ? 'none' : 'tongued',
      }),
    );
    writer.fillBar(true);
  },
});

/** Degrees in semitones over the tonic, and beats. */
const PHRASES: Readonly<Record<string, readonly (readonly [number, number])[]>> = {
  turn: [
    [0, 1],
    [2, 0.5],
    [4, 0.5],
    [7, 1],
    [4, 0.5],
    [2, 0.5],
    [0, 2],
    [-1, 1],
    [0, 1],
  ],
  leap: [
    [0, 1],
    [7, 1],
    [12, 1],
    [11, 0.5],
    [9, 0.5],
    [7, 1],
    [4, 1],
    [0, 2],
  ],
  sigh: [
    [7, 1.5],
    [8, 0.5],
    [7, 1],
    [4, 1],
    [5, 1.5],
    [4, 0.5],
    [2, 1],
    [0, 1],
  ],
};

export const twelveKeys = defineFamily({
  id: 'twelve-keys',
  title: 'A phrase in twelve keys',
  section: 'rhythm',
  purposes: ['music', 'flexibility'],
  what: 'A short phrase round the circle of fourths, so that every break is met from every side.',
  how: 'Do not write it down. Hear the next key before you play it.',
  measured: 'Seams met, pitch in every key, time.',
  vibrato: 'free',
  specs: {
    phrase: choice('Phrase', [
      ['turn', 'a turn'],
      ['leap', 'a leap'],
      ['sigh', 'a sigh'],
    ]),
    from: choice('First key', KEY_OPTIONS),
    slurred: flag('Slurred'),
    keys: count('Keys', 2, 12),
    dynamic: dynamic(),
    tempo: strictTempo(40, 160),
  },
  counts: { measures: ['rhythm', 'pitch', 'seam'] },
  defaults: () => ({
    phrase: 'turn' as const,
    from: '0' as const,
    slurred: true,
    keys: 12,
    dynamic: 'mf' as const,
    tempo: 72,
  }),
  write(writer, { phrase, from, slurred, keys }, instrument) {
    const first = CIRCLE_OF_FOURTHS.indexOf(Number(from) as (typeof CIRCLE_OF_FOURTHS)[number]);
    const row = PHRASES[phrase]!;
    const lowest = Math.min(...row.map(([up]) => up));
    const highest = Math.max(...row.map(([up]) => up));
    for (let i = 0; i < keys; i++) {
      const fifths = CIRCLE_OF_FOURTHS[(first + i) % 12]!;
      let tonic = tonicOf(fifths);
      // As near to the home note as it fits.
      while (
        tonic + lowest < writer.low ||
        (tonic < instrument.home - 6 && tonic + 12 + highest <= writer.high)
      )
        tonic += 12;
      row.forEach(([up, beats], k) => {
        const written = writer.folded(tonic + up);
        writer.note(written, beats, {
          attack: slurred && k > 0 ? 'none' : 'tongued',
          label: k === 0 ? keyTitle(fifths) : null,
        });
      });
      writer.breathe();
      writer.fillBar(true);
    }
  },
});
