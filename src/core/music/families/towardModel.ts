import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { count, dynamic, model, note, tempo } from '../parameters';

export const towardModel = defineFamily({
  id: 'toward-model',
  title: 'Towards a model',
  section: 'air',
  purposes: ['sameness of tone', 'music'],
  what: 'A recording of a sound you admire is the reference for your colour.',
  how: 'Choose the recording and the note in it. Listen to it, then play the note, listening; then again.',
  listen: 'One thing at a time: how bright is the model, how much air is in it, how does it begin?',
  enough: 'Three tries. The model is a direction, not a test.',
  measured: 'Distance of your colour from the model’s, and in what.',
  specs: {
    note: note('Note'),
    model: model('Model'),
    times: count('Times', 1, 8),
    beats: count('Each', 4, 12, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['model'] },
  vibrato: 'free',
  defaults: (instrument) => ({
    note: instrument.home,
    model: null,
    times: 4,
    beats: 8,
    dynamic: 'mf' as const,
    tempo: null,
  }),
  write(writer, { note: written, times, beats }) {
    for (let i = 0; i < times; i++) {
      writer.note(written, beats);
      writer.fillBar();
      writer.rest(4);
    }
  },
});
