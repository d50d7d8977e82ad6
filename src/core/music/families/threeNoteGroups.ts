import { defineFamily } from '../family';
import { choice, count, dynamic, range, tempo } from '../parameters';
import { stepwise } from './rows';

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
      ['semitones', 'three semitones'],
      ['octave', 'note, octave, semitone under it'],
    ]),
    beats: count('Each note', 1, 6, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['sameness', 'seam', 'pitch', 'steadiness', 'level'] },
  defaults: (_instrument, _level, { bottom }) => ({
    range: { low: bottom.low, high: bottom.high },
    direction: 'down' as const,
    variant: 'semitones' as const,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, direction, variant, beats }) {
    const sign = direction === 'down' ? -1 : 1;
    const from = direction === 'down' ? high : low;
    const rows: number[][] = [];
    if (variant === 'octave') {
      for (const written of stepwise(from, direction === 'down' ? low : high))
        if (writer.has(written + 12)) rows.push([written, written + 12, written + 11]);
    }
    if (rows.length === 0) {
      for (let at = from; at + 2 * sign >= low && at + 2 * sign <= high; at += 2 * sign)
        rows.push([at, at + sign, at + 2 * sign]);
    }
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
