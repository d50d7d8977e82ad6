import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';

export const whisperTones = defineFamily({
  id: 'whisper-tones',
  title: 'Whisper tones',
  section: 'dynamics',
  purposes: ['soft playing', 'breath and air', 'the high notes'],
  what: 'The very soft upper partials alone, held; then the full note, softly.',
  how: 'Hardly any air, and no push: wait until one partial whispers by itself, and keep it. Then let the note come.',
  listen: 'One thin high partial alone, beside the breath. It wanders as soon as you push.',
  enough: 'When one whisper has held for ten seconds and the soft note has followed it.',
  measured: 'How long each whisper held, and the soft note after it.',
  unfit: ({ kind, name }) =>
    kind === 'edge'
      ? null
      : `whisper tones are for instruments that are blown over an edge, not for the ${name}`,
  specs: {
    note: note('Fingered note'),
    times: count('Times', 1, 6),
    beats: count('Each', 4, 12, 'beats'),
    dynamic: dynamic('The full note'),
    tempo: tempo(),
  },
  counts: { ...EXPLORING, measures: ['hold'] },
  defaults: (_instrument, _level, { bottom }) => ({
    note: bottom.low,
    times: 3,
    beats: 8,
    dynamic: 'p' as const,
    tempo: null,
  }),
  write(writer, { note: written, times, beats, dynamic: full }) {
    for (let i = 0; i < times; i++) {
      writer.setDynamic('pp');
      const mode = [4, 3, 2].find((each) => writer.has(Math.round(written + 12 * Math.log2(each)))) ?? 1;
      const sounding = Math.round(written + 12 * Math.log2(mode));
      writer.note(sounding, beats, {
        fingered: written,
        mode,
        attack: 'breath',
        label: 'whisper',
        role: 'whisper',
      });
      writer.breathe();
      writer.setDynamic(full);
      writer.note(written, 4, { attack: 'breath', role: 'full' });
      writer.breathe();
      writer.fillBar();
    }
  },
});
