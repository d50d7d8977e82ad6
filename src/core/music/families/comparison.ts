import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { choice, count, dynamic, note, tempo } from '../parameters';

const PAIRS = [
  ['voice', 'humming along / plain'],
  ['double-lip', 'both lips over / usual'],
  ['whisper', 'whisper of an upper partial / full'],
  ['tongue', 'tongue high / tongue low'],
  ['angle', 'one angle / another'],
  ['reeds', 'one reed / another'],
  ['headjoints', 'one headjoint / another'],
] as const;

/** Names of the two conditions. */
function sidesOf(pair: (typeof PAIRS)[number][0]): [string, string] {
  const [first = '', second = ''] = (PAIRS.find(([id]) => id === pair) ?? PAIRS[0])[1].split(' / ');
  return [first, second];
}

export const comparison = defineFamily({
  id: 'comparison',
  title: 'Comparison',
  section: 'sound',
  purposes: ['sameness of tone', 'flexibility'],
  what: 'The same figure under two conditions, in turn, to find out whether anything changes.',
  how: 'Play the figure under the first condition, then under the second, and again. With the voice: it takes its starting note from the figure and changes octave where it runs out; the plain repeat is what counts. With both lips over the teeth the instrument rests on a knee or a strap.',
  listen:
    'Anything that differs: fullness, pitch, how easily it speaks. Do not make up your mind before the end.',
  enough: 'When both conditions have had all their turns; fewer may be chance.',
  measured: 'The difference of the medians for each measure, and whether it is more than chance.',
  caution:
    'Both lips over the teeth: three minutes at most, it is hard on the lip; the instrument on a knee or a strap. The block ends by itself. Do not share reeds or mouthpieces uncleaned.',
  specs: {
    from: note('First note'),
    pair: choice('Conditions', PAIRS),
    rounds: count('Rounds', 2, 6),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['compare'] },
  fixed: ({ pair }) => ({
    company: pair === 'voice',
    sides: sidesOf(pair),
    longestSeconds: pair === 'double-lip' ? 180 : null,
  }),
  defaults: (instrument) => ({
    from: instrument.home,
    pair: 'voice' as const,
    rounds: 3,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { from, rounds, beats, pair }) {
    const row = [0, 2, 4, 2, 0].map((up) => writer.folded(from + up));
    const names = sidesOf(pair);
    for (let i = 0; i < 2 * rounds; i++) {
      const second = i % 2 === 1;
      writer.slurred(
        row,
        beats,
        { label: names[second ? 1 : 0] },
        { role: second ? 'second' : 'first', company: pair === 'voice' && !second },
      );
      writer.breathe();
      writer.fillBar(true);
    }
  },
});
