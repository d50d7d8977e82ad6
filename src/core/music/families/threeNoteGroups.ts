import { defineFamily } from '../family';
import { choice, count, dynamic, range, tempo } from '../parameters';
import { goesThrough, nextTo, through, walk } from './walks';

export const threeNoteGroups = defineFamily({
  id: 'three-note-groups',
  title: 'Three-note chromatic groups',
  section: 'sound',
  purposes: ['sameness of tone', 'the low notes', 'the high notes'],
  what: 'Walks one kind of sound through a register, three notes to a breath.',
  how: 'Slur a note and the next two semitones; breathe; begin again on the note just reached. One day soft, one day medium, one day loud.',
  listen: 'Three notes like one: no step in loudness or colour, no sigh at the slurs.',
  enough: 'Once through the register. Earlier, when the third note is thinner than the first twice running.',
  measured: 'Sameness of the three, the slurs between them, pitch and colour down the register.',
  specs: {
    range: range('From, to', 3),
    direction: choice('Go', [
      ['down', 'down'],
      ['up', 'up'],
    ]),
    variant: choice('Group', [
      ['semitones', 'three in a row'],
      ['octave', 'note, octave, the note under it'],
    ]),
    through: through(),
    beats: count('Each note', 1, 6, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['sameness', 'seam', 'pitch', 'steadiness', 'level'] },
  defaults: (_instrument, _level, { bottom }) => ({
    range: { low: bottom.low, high: bottom.high },
    direction: 'down' as const,
    variant: 'semitones' as const,
    through: 'usual' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, direction, variant, through: by, beats }, instrument) {
    const way = direction === 'down' ? walk(instrument, by, high, low) : walk(instrument, by, low, high);
    const octaves = way
      .filter((written) => writer.has(written + 12) && goesThrough(instrument, by, written + 12))
      .map((written) => [written, written + 12, nextTo(instrument, by, written + 12, -1)]);
    const inARow = way.flatMap((_, i) => (i % 2 === 0 && i + 2 < way.length ? [way.slice(i, i + 3)] : []));
    const rows = variant === 'octave' && octaves.length > 0 ? octaves : inARow;
    for (const row of rows) {
      row.forEach((written, i) => {
        const length = i === 2 ? 2 * beats : beats;
        if (i === 0) writer.note(written, length);
        else writer.slur(written, length);
      });
      writer.breathe();
    }
  },
});
