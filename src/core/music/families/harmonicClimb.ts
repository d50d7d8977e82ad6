import { modePitch, modesOf } from '@/core/instruments';
import { defineFamily } from '../family';
import { count, flag, range, tempo } from '../parameters';
import { through, walk } from './walks';

export const harmonicClimb = defineFamily({
  id: 'harmonic-climb',
  title: 'Harmonic climb',
  section: 'seams',
  purposes: ['the break', 'flexibility', 'breath and air'],
  what: 'Sounds the modes of one fingering, one after the other: the breath learns where each register lies.',
  how: 'Check each pitch with its ordinary fingering first. Finger the low note and let the next mode speak by air alone; go back to the fundamental after each. Later, climb while getting softer. On clarinets the register key may help a mode to speak and is then let go.',
  listen:
    'Where the breath has to be for each mode. The fifth and the seventh mode lie lower than the ordinary fingering by nature: leave them there.',
  enough: 'One climb from each low note. A mode that does not speak in three tries waits until tomorrow.',
  measured: 'Which modes were reached, their cents from the true multiples and from the ordinary fingering.',
  differ: 'what leads the climb: the air, the body’s support, or the shape of lips and mouth.',
  caution: 'Numb, dizzy or sore: stop.',
  specs: {
    range: range('Fingered notes', 0),
    through: through(),
    modes: count('Modes', 2, 8),
    back: flag('Back to the fundamental after each'),
    check: flag('Ordinary fingering first'),
    softer: flag('Softer as it climbs'),
    beats: count('Each', 1, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['climb'], feeds: { map: false, seams: false, trends: true } },
  defaults: (instrument, level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + (level === 'beginner' ? 1 : 3)) },
    through: 'usual' as const,
    modes: instrument.kind === 'edge' ? (level === 'beginner' ? 3 : 6) : 3,
    back: true,
    check: false,
    softer: false,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, through: by, modes, back, check, softer, beats }, instrument) {
    const tube = modesOf(instrument).slice(1, modes);
    for (const fingered of walk(instrument, by, low, high)) {
      const reached = tube
        .map((mode) => ({ mode, written: Math.round(modePitch(fingered, mode)) }))
        .filter(({ written }) => writer.has(written));
      writer.setDynamic(softer ? 'f' : 'mf');
      if (check) {
        for (const { written } of reached)
          writer.note(written, beats, { label: 'ordinary', role: 'ordinary' });
        writer.breathe();
      }
      writer.note(fingered, beats);
      reached.forEach(({ mode, written }, i) => {
        if (softer) writer.setDynamic((['mf', 'mp', 'p', 'pp'] as const)[Math.min(3, i)]!);
        writer.slur(written, beats, { fingered, mode, label: String(mode), role: 'harmonic' });
        if (back && i < reached.length - 1) writer.slur(fingered, beats);
      });
      writer.slur(fingered, 2 * beats);
      writer.breathe();
      writer.fillBar(true);
    }
  },
});
