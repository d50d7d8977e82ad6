import { defineFamily } from '../family';
import { choice, dynamic, range, tempo } from '../parameters';
import { KEY_OPTIONS, SCALE_OPTIONS, signatureOf, usualKey } from './rows';
import { TUNES, tuneIn } from './tunes';

export const melody = defineFamily({
  id: 'melody',
  title: 'Melody',
  section: 'sound',
  purposes: ['music', 'sameness of tone'],
  what: 'Slow tunes in every key, since each key has its weak and its hard notes.',
  how: 'Play it as a tune, not as an exercise, and breathe at the marks. Hold the last note until it is the sound you want to be remembered by.',
  listen:
    'Does one note stick out of the line, louder, duller or out of tune? It often stands beside a break.',
  enough: 'Twice through in one key, then another key.',
  measured: 'Pitch and colour of every note, the slurs over the breaks, the last note’s purity.',
  vibrato: 'free',
  specs: {
    tune: choice(
      'Tune',
      TUNES.map((tune) => [tune.id, tune.title] as const),
    ),
    key: choice('Key', KEY_OPTIONS),
    scale: choice('Scale', SCALE_OPTIONS),
    range: range('Within', 12),
    dynamic: dynamic(),
    tempo: tempo(30, 120),
  },
  counts: { measures: ['seam', 'pitch', 'rhythm', 'hold', 'level', 'air', 'attack'] },
  fixed: ({ key, scale, tune }) => ({
    fifths: signatureOf(Number(key), scale),
    beatsPerBar: TUNES.find((each) => each.id === tune)?.beatsPerBar ?? 4,
  }),
  defaults: (instrument, _level, { low, high }) => ({
    tune: TUNES[0]!.id,
    key: usualKey(instrument),
    scale: 'major' as const,
    range: { low, high: Math.max(high, low + 12) },
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { tune, key, scale, range: span }) {
    tuneIn(writer, tune, { key: Number(key), scale }, span);
  },
});
