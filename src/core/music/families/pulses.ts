import { EXPLORING } from './exploring';
import { defineFamily } from '../family';
import { count, flag, note, strictTempo } from '../parameters';

export const pulses = defineFamily({
  id: 'pulses',
  title: 'Pulses',
  section: 'dynamics',
  purposes: ['breath and air', 'flexibility'],
  what: 'Bursts of air on one note without stopping it, smaller and smaller, then longer and longer.',
  how: 'Hold one note and let the air surge in it; the note never stops. Feel the surge low in the body, not in the throat.',
  listen: 'Does the tone go on between the surges? Is the last one as even as the first?',
  enough: 'Two rounds, or when the throat begins to do it.',
  measured: 'Depth and evenness of the pulses, whether the tone went on.',
  specs: {
    note: note('Note'),
    pulses: count('Pulses', 3, 12),
    longer: flag('Then longer'),
    tempo: strictTempo(40, 120),
  },
  counts: { ...EXPLORING, measures: ['pulses'] },
  defaults: (instrument) => ({ note: instrument.home, pulses: 6, longer: true, tempo: 60 }),
  write(writer, { note: written, pulses: number, longer }) {
    const steps = ['ff', 'f', 'f', 'mf', 'mf', 'mp'] as const;
    for (let i = 0; i < number; i++) {
      writer.setDynamic(steps[Math.min(steps.length - 1, Math.floor((i * steps.length) / number))]!);
      writer.note(written, 1, {
        attack: i === 0 ? 'tongued' : 'none',
        hairpin: 'fade',
        role: 'smaller',
        label: i === 0 ? 'smaller' : null,
      });
    }
    writer.fillBar(true);
    writer.breathe();
    if (!longer) return;
    writer.setDynamic('f');
    for (let beats = 1; beats <= Math.min(4, number); beats++)
      writer.note(written, beats, {
        attack: beats === 1 ? 'tongued' : 'none',
        hairpin: 'fade',
        role: 'longer',
        label: beats === 1 ? 'longer' : null,
      });
    writer.fillBar(true);
  },
});
