import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, range, tempo } from '../parameters';
import { KEY_OPTIONS, stepwise } from './rows';
import { TUNES, tuneIn } from './tunes';

const DIZZY = 'Dizzy, numb or short of breath: stop, breathe normally, hold shorter.';

export const longToneFamily = defineFamily({
  id: 'long-tone',
  title: 'One honest long tone',
  section: 'sound',
  purposes: ['sameness of tone', 'warming up', 'tuning'],
  what: 'The plainest look at a sound: one note, held, as it is today.',
  how: 'Breathe low, let the note begin by itself, change nothing while it lasts.',
  measured: 'Centre, drift, wobble, vibrato, level and its evenness, purity time, attack, air.',
  caution: DIZZY,
  specs: { note: note('Note'), beats: count('Hold', 2, 64, 'beats'), dynamic: dynamic(), tempo: tempo() },
  counts: { measures: ['pitch', 'steadiness', 'level', 'colour', 'attack', 'purity'] },
  defaults: (instrument) => ({ note: instrument.home, beats: 8, dynamic: 'mf' as const, tempo: 60 }),
  write: (writer, { note: written, beats }) => writer.note(written, beats),
});

export const referenceTravel = defineFamily({
  id: 'reference-travel',
  title: 'Reference-note travel',
  section: 'sound',
  purposes: ['sameness of tone', 'the low notes', 'warming up'],
  what: 'Carries the sound of your best note of the day through the range, note by note.',
  how: 'Play the reference until it is the sound you want. Go down by semitones and keep it; come back to it; go up. When a note loses it, return to the reference and try again.',
  measured: 'Each note against the reference: pitch, level, colour, air.',
  specs: {
    reference: note('Reference note'),
    range: range('Down to, up to', 2),
    beats: count('Each note', 1, 8, 'beats'),
    joined: flag('Slurred in pairs'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'steadiness', 'level', 'colour', 'sameness', 'seam'] },
  defaults: (instrument, level, { low, bottom }) => ({
    reference: instrument.home,
    range: {
      low: level === 'beginner' ? low : bottom.low,
      high: Math.max(instrument.home, bottom.low + 2),
    },
    beats: 4,
    joined: true,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { reference, range: span, beats, joined }, { step }) {
    const travel = (to: number) => {
      writer.note(reference, beats, { label: 'reference' });
      for (const [i, written] of stepwise(reference, to, step).slice(1).entries())
        writer.note(written, beats, { attack: joined && i % 2 === 0 ? 'none' : 'tongued' });
    };
    if (span.low < reference) travel(span.low);
    if (span.high > reference) travel(span.high);
    writer.note(reference, beats * 2, { label: 'reference' });
  },
});

export const threeNoteGroups = defineFamily({
  id: 'three-note-groups',
  title: 'Three-note chromatic groups',
  section: 'sound',
  purposes: ['sameness of tone', 'the low notes', 'the high notes'],
  what: 'Walks one kind of sound through a register, three notes to a breath.',
  how: 'Slur a note and the next two semitones; breathe; begin again on the note just reached. One day soft, one day medium, one day loud.',
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
  counts: { measures: ['pitch', 'steadiness', 'level', 'colour', 'sameness', 'seam'] },
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

export const longHold = defineFamily({
  id: 'long-hold',
  title: 'Long hold',
  section: 'sound',
  purposes: ['breath and air', 'the low notes', 'sameness of tone'],
  what: 'How long does a note stay pure? The figure is worth following over a month or two.',
  how: 'Walk down a short scale and hold its last note as long as it stays pure, without vibrato; then the same to the next one. Stop when it wavers, not when the air is gone.',
  measured: 'Purity time of each held note, drift and fading towards its end.',
  caution: DIZZY,
  specs: {
    range: range('Notes that are held', 1),
    steps: count('Notes of the scale before', 2, 5, 'notes'),
    hold: count('Room to hold', 8, 60, 'beats'),
    dynamic: dynamic(),
  },
  counts: { measures: ['pitch', 'steadiness', 'level', 'purity'] },
  fixed: () => ({ longestSeconds: 900 }),
  defaults: (instrument, level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + 4) },
    steps: 4,
    hold: level === 'beginner' ? 10 : Math.min(60, Math.round(instrument.breathSeconds)),
    dynamic: 'mf' as const,
  }),
  write(writer, { range: { low, high }, steps, hold }) {
    const scale = [0, 2, 4, 5, 7, 9];
    for (const bottom of stepwise(low, high)) {
      const row = scale.slice(0, steps + 1).map((degree) => bottom + degree);
      const walk = row.filter((written) => written === bottom || writer.has(written)).reverse();
      walk
        .slice(0, -1)
        .forEach((written, i) => writer.note(written, 1, { attack: i === 0 ? 'tongued' : 'none' }));
      writer.note(bottom, hold, { attack: walk.length > 1 ? 'none' : 'tongued', label: 'hold' });
      writer.breathe();
      writer.rest(4);
    }
  },
});

export const problemCircle = defineFamily({
  id: 'problem-circle',
  title: 'Problem-note circle',
  section: 'sound',
  purposes: ['sameness of tone'],
  what: 'Brings a bad note up to its best neighbour.',
  how: 'Hold the note. Then come to it under a slur from its best neighbour, and go back, until the two match in fullness. At last a slow round of three notes whose changes nobody across the room should notice.',
  measured: 'Distance of the note’s colour from its neighbour’s, pitch, level, the slurs.',
  specs: {
    problem: note('Problem note'),
    neighbour: note('Best neighbour'),
    third: note('Third of the round'),
    times: count('To and fro', 2, 8, 'times'),
    beats: count('Each note', 1, 6, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'steadiness', 'level', 'colour', 'sameness', 'seam'] },
  defaults: (instrument) => ({
    problem: instrument.home,
    neighbour: instrument.home - instrument.step,
    third: instrument.home + 2 * instrument.step,
    times: 3,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { problem, neighbour, third, times, beats }) {
    writer.note(problem, 4 * beats, { label: 'the note' });
    writer.breathe();
    for (let i = 0; i < times; i++) {
      writer.slurred([neighbour, problem, neighbour], beats);
      writer.breathe();
    }
    for (let i = 0; i < 2; i++) {
      writer.slurred([problem, neighbour, third], 2 * beats);
      writer.breathe();
    }
    writer.note(problem, 4 * beats, { label: 'the note' });
  },
});

export const twoNoteLegato = defineFamily({
  id: 'two-note-legato',
  title: 'Two-note legato',
  section: 'sound',
  purposes: ['sameness of tone', 'flexibility'],
  what: 'One kind of air carried through the same semitone in every octave.',
  how: 'Slur the pair to and fro at the bottom, then an octave up, then again. Only the fingers move.',
  measured: 'Each slur’s dip and time, sameness of the pairs.',
  specs: {
    low: note('Lower note'),
    turns: count('To and fro', 1, 6, 'times'),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'level', 'colour', 'seam', 'sameness'] },
  defaults: (_instrument, _level, { bottom }) => ({
    low: bottom.low,
    turns: 2,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { low, turns, beats }, { step }) {
    const first = writer.has(low + step) ? low : low - step;
    for (let at = first; writer.has(at + step); at += 12) {
      writer.slurred(
        Array.from({ length: 2 * turns + 1 }, (_, i) => (i % 2 === 0 ? at : at + step)),
        beats,
      );
      writer.breathe();
    }
  },
});

export const melody = defineFamily({
  id: 'melody',
  title: 'Melody',
  section: 'sound',
  purposes: ['music', 'sameness of tone'],
  what: 'Slow tunes in every key, since each key has its weak and its hard notes.',
  how: 'Play it as a tune, not as an exercise. Hold the last note until it is the sound you want to be remembered by.',
  measured: 'Pitch and colour of every note, the slurs over the breaks, the last note’s purity.',
  vibrato: 'free',
  specs: {
    tune: choice(
      'Tune',
      TUNES.map((tune) => [tune.id, tune.title] as const),
    ),
    key: choice('Key', KEY_OPTIONS),
    range: range('Within', 12),
    dynamic: dynamic(),
    tempo: tempo(30, 120),
  },
  fixed: ({ key, tune }) => ({
    fifths: Number(key),
    beatsPerBar: TUNES.find((each) => each.id === tune)?.beatsPerBar ?? 4,
  }),
  defaults: (_instrument, _level, { low, high }) => ({
    tune: TUNES[0]!.id,
    key: '0' as const,
    range: { low, high: Math.max(high, low + 12) },
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { tune, key, range: span }) {
    tuneIn(writer, tune, Number(key), span);
  },
});
