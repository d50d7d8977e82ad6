import { type Midi, Random } from '@/core/base';
import { defineFamily } from '../family';
import { choice, count, dynamic, flag, range, strictTempo } from '../parameters';
import { KEY_OPTIONS, SCALE_OPTIONS, notesOfKey, signatureOf, usualKey } from './rows';
import { tonicOf } from '@/core/tuning';

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
  how: 'Play the scale and turn where the music turns. Calm and clean at this tempo, then two notches up; otherwise stop, take the place alone, slow down. An easy and a hard key each day.',
  listen: 'Evenness at the turns and over the breaks: a late finger makes one note long.',
  enough: 'When it was calm and clean twice, or after ten minutes.',
  measured: 'Rush and drag, evenness, swing ratio, every seam that is met, pitch by the way.',
  vibrato: 'free',
  specs: {
    key: choice('Key', KEY_OPTIONS),
    scale: choice('Scale', SCALE_OPTIONS),
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
  counts: { measures: ['rhythm', 'seam', 'pitch', 'attack'], notches: 'clean', timed: 'all' },
  fixed: ({ key, scale, swing }) => ({ fifths: signatureOf(Number(key), scale), swing }),
  defaults: (instrument, level, { low, high }) => ({
    key: usualKey(instrument),
    scale: 'major' as const,
    range: { low, high: Math.max(high, low + 9) },
    form: 'scale' as const,
    swing: false,
    slurred: false,
    bars: 8,
    seed: 1,
    dynamic: 'mf' as const,
    tempo: level === 'beginner' ? 60 : 76,
  }),
  write(writer, { key, scale, range: { low, high }, form, slurred, bars, seed }) {
    const row = notesOfKey(Number(key), scale, low, high, form === 'arpeggio');
    const tonic = row.findIndex((written) => (written - tonicOf(Number(key))) % 12 === 0);
    const path = roam(row, Math.max(0, tonic), 8 * bars - 2, new Random(seed));
    path.forEach((place, i) =>
      writer.note(row[place]!, i === path.length - 1 ? 2 : 0.5, {
        attack: slurred && i % 8 !== 0 ? 'none' : 'tongued',
      }),
    );
    writer.fillBar(true);
  },
});
