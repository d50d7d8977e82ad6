import { defineFamily } from '../family';
import { count, dynamic, flag, note, range, tempo } from '../parameters';
import { through, walk } from './walks';

export const referenceTravel = defineFamily({
  id: 'reference-travel',
  title: 'Reference-note travel',
  section: 'sound',
  purposes: ['sameness of tone', 'the low notes', 'warming up'],
  what: 'Carries the sound of your best note of the day through the range, note by note.',
  how: 'Play the reference until it is the sound you want. Go down by semitones and keep it; come back to it; go up. When a note loses it, return to the reference and try again.',
  listen: 'Is it still the sound of the reference: as full, as loud, as clean?',
  enough: 'At the end of the way, or when two notes in a row lose the sound even after a return.',
  measured: 'Each note against the reference: pitch, level, colour, air.',
  specs: {
    reference: note('Reference note'),
    range: range('Down to, up to', 2),
    through: through(),
    beats: count('Each note', 1, 8, 'beats'),
    joined: flag('Slurred in pairs'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['sameness', 'seam', 'pitch', 'steadiness', 'level'] },
  defaults: (instrument, level, { low, bottom }) => ({
    reference: instrument.home,
    range: {
      low: level === 'beginner' ? low : bottom.low,
      high: Math.max(instrument.home, bottom.low + 2),
    },
    through: 'usual' as const,
    beats: 4,
    joined: true,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { reference, range: span, through: by, beats, joined }, instrument) {
    const travel = (to: number) => {
      writer.note(reference, beats, { label: 'reference', role: 'reference' });
      for (const [i, written] of walk(instrument, by, reference, to)
        .filter((each) => each !== reference)
        .entries())
        writer.note(written, beats, { attack: joined && i % 2 === 0 ? 'none' : 'tongued' });
    };
    if (span.low < reference) travel(span.low);
    if (span.high > reference) travel(span.high);
    writer.note(reference, beats * 2, { label: 'reference', role: 'reference' });
  },
});
