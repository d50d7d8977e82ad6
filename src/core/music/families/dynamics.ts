import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, range, strictTempo, tempo } from '../parameters';
import { KEY_OPTIONS, notesOfKey, stepwise } from './rows';

const MEASURES = ['pitch', 'level', 'colour', 'steadiness', 'window'] as const;

export const tapers = defineFamily({
  id: 'tapers',
  title: 'Tapers',
  section: 'dynamics',
  purposes: ['soft playing', 'tuning', 'breath and air'],
  what: 'From full to nothing, with the pitch kept. Most instruments go flat as they fade; clarinets go sharp.',
  how: 'Less air, not slower air. Free at first, later over four beats; then backward, from nothing.',
  measured: 'Level against the line, where the note ends, pitch per level.',
  specs: {
    range: range('Notes', 0),
    by: choice('By', [
      ['semitone', 'semitones'],
      ['scale', 'a scale'],
    ]),
    direction: choice('Way', [
      ['out', 'to nothing'],
      ['in', 'from nothing'],
      ['both', 'both'],
    ]),
    beats: count('Over', 3, 16, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES] },
  defaults: (instrument, level, { low, high }) => ({
    range: {
      low: Math.max(low, instrument.home - 2),
      high: Math.min(high, instrument.home + (level === 'beginner' ? 2 : 5)),
    },
    by: 'scale' as const,
    direction: 'out' as const,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, by, direction, beats }) {
    const scale = [0, 2, 4, 5, 7, 9, 11];
    const row = stepwise(low, high).filter(
      (written) => by === 'semitone' || scale.includes((written - low) % 12),
    );
    for (const written of row) {
      if (direction !== 'in') {
        writer.setDynamic('f');
        writer.note(written, beats, { hairpin: 'fade' });
        writer.breathe();
        writer.fillBar();
      }
      if (direction !== 'out') {
        writer.setDynamic('pp');
        writer.note(written, beats, { hairpin: 'grow', attack: 'breath' });
        writer.breathe();
        writer.fillBar();
      }
    }
  },
});

export const swells = defineFamily({
  id: 'swells',
  title: 'Swells',
  section: 'dynamics',
  purposes: ['soft playing', 'breath and air'],
  what: 'Growing and fading evenly, the peak on the bar, the tone kept.',
  how: 'Four beats growing, four fading, at 60, up a scale. Begin softer than you think.',
  measured: 'Level against the line, where the peak falls, steps and holes, pitch per level, tone.',
  specs: {
    key: choice('Key', KEY_OPTIONS),
    range: range('Notes', 1),
    beats: count('Each way', 2, 8, 'beats'),
    tempo: strictTempo(),
  },
  counts: { measures: [...MEASURES, 'rhythm'] },
  fixed: ({ key }) => ({ fifths: Number(key) }),
  defaults: (instrument, level, { low, high }) => ({
    key: '0' as const,
    range: {
      low: Math.max(low, instrument.home - 5),
      high: Math.min(high, instrument.home + (level === 'beginner' ? 4 : 7)),
    },
    beats: 4,
    tempo: 60,
  }),
  write(writer, { key, range: { low, high }, beats }) {
    writer.setDynamic('p');
    const scale = notesOfKey(Number(key), low, high);
    for (const written of scale.length > 0 ? scale : [Math.ceil(low)]) {
      writer.note(written, 2 * beats, { hairpin: 'swell' });
      writer.fillBar();
      writer.breathe();
    }
  },
});

export const dynamicWindow = defineFamily({
  id: 'dynamic-window',
  title: 'Dynamic window',
  section: 'dynamics',
  purposes: ['soft playing', 'the low notes', 'the high notes'],
  what: 'The softest and the loudest that each note holds with its tone.',
  how: 'As softly as it still sounds like you, held; then as loudly as it still does, held.',
  measured: 'Both levels, their distance, tone and pitch at both ends.',
  caution: 'Loud: protect your ears in a small room.',
  specs: {
    range: range('Notes', 0),
    step: count('Every', 1, 7, 'semitones'),
    beats: count('Each', 3, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES] },
  defaults: (_instrument, _level, { low, high }) => ({ range: { low, high }, step: 4, beats: 4, tempo: 60 }),
  write(writer, { range: { low, high }, step, beats }) {
    for (const written of stepwise(low, high, step)) {
      writer.setDynamic('pp');
      writer.note(written, beats, { label: 'softest' });
      writer.breathe();
      writer.setDynamic('ff');
      writer.note(written, beats, { label: 'loudest' });
      writer.breathe();
      writer.fillBar();
    }
  },
});

export const pulses = defineFamily({
  id: 'pulses',
  title: 'Pulses',
  section: 'dynamics',
  purposes: ['breath and air', 'flexibility'],
  what: 'Bursts of air on one note without stopping it, smaller and smaller, then longer and longer.',
  how: 'The note never stops; the air surges in it. Feel the surge low in the body, not in the throat.',
  measured: 'Depth and evenness of the pulses, whether the tone went on.',
  specs: {
    note: note('Note'),
    pulses: count('Pulses', 3, 12),
    longer: flag('Then longer'),
    tempo: strictTempo(40, 120),
  },
  counts: {
    measures: ['level', 'rhythm'],
    events: ['break', 'squeak'],
    feeds: { map: false, seams: false, trends: false },
    exploring: true,
  },
  defaults: (instrument) => ({ note: instrument.home, pulses: 6, longer: true, tempo: 60 }),
  write(writer, { note: written, pulses: number, longer }) {
    const steps = ['ff', 'f', 'f', 'mf', 'mf', 'mp'] as const;
    for (let i = 0; i < number; i++) {
      writer.setDynamic(steps[Math.min(steps.length - 1, Math.floor((i * steps.length) / number))]!);
      writer.note(written, 1, {
        attack: i === 0 ? 'tongued' : 'none',
        hairpin: 'fade',
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
        label: beats === 1 ? 'longer' : null,
      });
    writer.fillBar(true);
  },
});

export const reversedDynamics = defineFamily({
  id: 'reversed-dynamics',
  title: 'Reversed dynamics',
  section: 'dynamics',
  purposes: ['soft playing', 'tuning', 'music'],
  what: 'A line that always goes flat where it rises and fades: practised growing, then as written.',
  how: 'First grow into the top; then fade into it with the same support.',
  measured: 'Pitch of the top both ways, level along both lines.',
  specs: {
    from: note('First note'),
    notes: count('Notes', 3, 8),
    times: count('Times', 1, 4),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES, 'seam'] },
  defaults: (instrument) => ({ from: instrument.home, notes: 5, times: 2, tempo: 60 }),
  write(writer, { from, notes, times }) {
    const whole = [0, 2, 4, 5, 7, 9, 11, 12].slice(0, notes);
    const start = Math.max(writer.low, Math.min(from, writer.high - whole[whole.length - 1]!));
    const row = whole.map((up) => start + up).filter((written) => writer.has(written));
    const line = (hairpin: 'grow' | 'fade', label: string) => {
      writer.setDynamic(hairpin === 'grow' ? 'p' : 'f');
      row.forEach((written, i) =>
        writer.note(written, i === row.length - 1 ? 2 : 1, {
          attack: i === 0 ? 'tongued' : 'none',
          hairpin,
          label: i === 0 ? label : null,
        }),
      );
      writer.fillBar(true);
      writer.breathe();
    };
    for (let i = 0; i < times; i++) {
      line('grow', 'reversed');
      line('fade', 'as written');
    }
  },
});

export const whisperTones = defineFamily({
  id: 'whisper-tones',
  title: 'Whisper tones',
  section: 'dynamics',
  purposes: ['soft playing', 'breath and air', 'the high notes'],
  what: 'The very soft upper partials alone, held; then the full note, softly.',
  how: 'Hardly any air, and no push: wait until one partial whispers by itself, and keep it. Then let the note come.',
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
  },
  counts: {
    measures: ['steadiness', 'attack'],
    events: [],
    feeds: { map: false, seams: false, trends: false },
    exploring: true,
  },
  defaults: (_instrument, _level, { bottom }) => ({
    note: bottom.low,
    times: 3,
    beats: 8,
    dynamic: 'p' as const,
  }),
  write(writer, { note: written, times, beats, dynamic: full }) {
    for (let i = 0; i < times; i++) {
      writer.setDynamic('pp');
      const mode = [4, 3, 2].find((each) => writer.has(Math.round(written + 12 * Math.log2(each)))) ?? 1;
      const sounding = Math.round(written + 12 * Math.log2(mode));
      writer.note(sounding, beats, { fingered: written, mode, attack: 'breath', label: 'whisper' });
      writer.breathe();
      writer.setDynamic(full);
      writer.note(written, 4, { attack: 'breath' });
      writer.breathe();
      writer.fillBar();
    }
  },
});
