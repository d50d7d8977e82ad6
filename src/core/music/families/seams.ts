import { modePitch, modesOf, seamBetween, seamsOf, writtenRange, type Instrument } from '@/core/instruments';
import type { Midi } from '@/core/tuning';
import { defineFamily } from '../family';
import { choice, count, dynamic, flag, note, range, tempo } from '../parameters';
import type { Writer } from '../writer';
import { stepwise } from './rows';

const MEASURES = ['pitch', 'level', 'colour', 'seam'] as const;
const SHORT_DOSE = 'High and loud work in short doses: lip and ears first. The block ends by itself.';

const flicks = (instrument: Instrument) => instrument.hands.filter((rule) => rule.when === 'flick');

export const harmonicClimb = defineFamily({
  id: 'harmonic-climb',
  title: 'Harmonic climb',
  section: 'seams',
  purposes: ['the break', 'flexibility', 'breath and air'],
  what: 'Sounds the modes of one fingering, one after the other: the breath learns where each register lies.',
  how: 'Check each pitch with its ordinary fingering first. Finger the low note and let the next mode speak by air alone; go back to the fundamental after each. Later, climb while getting softer. On clarinets the register key may help a mode to speak and is then let go.',
  measured: 'Which modes were reached, their cents from the true multiples and from the ordinary fingering.',
  caution: 'Numb, dizzy or sore: stop.',
  specs: {
    range: range('Fingered notes', 0),
    modes: count('Modes', 2, 8),
    back: flag('Back to the fundamental after each'),
    check: flag('Ordinary fingering first'),
    softer: flag('Softer as it climbs'),
    beats: count('Each', 1, 8, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'interval', 'level'], feeds: { map: false, seams: false, trends: true } },
  defaults: (instrument, level, { bottom }) => ({
    range: { low: bottom.low, high: Math.min(bottom.high, bottom.low + (level === 'beginner' ? 1 : 3)) },
    modes: instrument.kind === 'edge' ? (level === 'beginner' ? 3 : 6) : 3,
    back: true,
    check: false,
    softer: false,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { range: { low, high }, modes, back, check, softer, beats }, instrument) {
    const tube = modesOf(instrument).slice(1, modes);
    for (const fingered of stepwise(low, high, instrument.step)) {
      const reached = tube
        .map((mode) => ({ mode, written: Math.round(modePitch(fingered, mode)) }))
        .filter(({ written }) => writer.has(written));
      writer.setDynamic(softer ? 'f' : 'mf');
      if (check) {
        for (const { written } of reached) writer.note(written, beats, { label: 'ordinary' });
        writer.breathe();
      }
      writer.note(fingered, beats);
      reached.forEach(({ mode, written }, i) => {
        if (softer) writer.setDynamic((['mf', 'mp', 'p', 'pp'] as const)[Math.min(3, i)]!);
        writer.slur(written, beats, { fingered, mode, label: String(mode) });
        if (back && i < reached.length - 1) writer.slur(fingered, beats);
      });
      writer.slur(fingered, 2 * beats);
      writer.breathe();
      writer.fillBar(true);
    }
  },
});

const PATTERNS = [
  ['LHL', 'low high low'],
  ['HLH', 'high low high'],
  ['LH', 'alternating'],
  ['LHHL', 'low high high low'],
  ['HLLH', 'high low low high'],
  ['falling', 'falling chain in one breath'],
  ['rising', 'rising by semitone'],
] as const;

export const octaveSlurs = defineFamily({
  id: 'octave-slurs',
  title: 'Octave slurs',
  section: 'seams',
  purposes: ['the break', 'flexibility'],
  what: 'The leap itself: only the first note is tongued, nothing is squeezed, both notes are in tune.',
  how: 'As little movement as possible. Keep the air going through the leap and let it change just enough. Slowly at first.',
  measured: 'Dip, time and overshoot of each leap, the octave’s width, the step in level and colour, breaks.',
  specs: {
    pattern: choice('Pattern', PATTERNS),
    range: range('Lower notes', 0),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES, 'interval'] },
  defaults: (_instrument, level, { bottom, high }) => {
    const top = Math.max(bottom.low, Math.min(bottom.high, high - 12));
    return {
      pattern: 'LHL' as const,
      range: { low: Math.max(bottom.low, top - (level === 'beginner' ? 4 : 7)), high: top },
      beats: 1,
      dynamic: 'mf' as const,
      tempo: 60,
    };
  },
  write(writer, { pattern, range: { low, high }, beats }, { step }) {
    const lows = stepwise(low, high, step).filter((written) => writer.has(written + 12));
    // Where no octave fits over the chosen notes, the octave under them is slurred.
    const row =
      lows.length > 0
        ? lows
        : [Math.max(writer.low, high - 12)].filter((written) => writer.has(written + 12));
    if (row.length === 0) {
      writer.slurred([low, high, low], beats);
      return;
    }
    if (pattern === 'falling') {
      const chain = [...row].reverse();
      chain.forEach((written, i) => {
        writer.note(written + 12, beats, { attack: i === 0 ? 'tongued' : 'none' });
        writer.slur(written, beats);
      });
      writer.fillBar(true);
      return;
    }
    const letters = pattern === 'rising' ? 'LHL' : pattern === 'LH' ? 'LHLHLH' : pattern;
    for (const written of row) {
      writer.slurred(
        [...letters].map((letter) => (letter === 'L' ? written : written + 12)),
        beats,
      );
      writer.fillBar(true);
      if (pattern !== 'rising') writer.breathe();
    }
  },
});

export const ventFlick = defineFamily({
  id: 'vent-flick',
  title: 'Vent-flick',
  section: 'seams',
  purposes: ['the break', 'attacks'],
  what: 'The thumb touches a vent key for an instant, so that the notes above the break speak cleanly.',
  how: 'The low note stays down until the thumb has left its key. Octaves first, then tongued, then against a drone. Some players hold the key instead and pay with another tone: try both, and listen.',
  measured: 'Blips and breaks at each of these places, how late the note speaks, the octave.',
  unfit: (instrument) =>
    flicks(instrument).length > 0 ? null : `the ${instrument.name} has no keys that are flicked`,
  specs: {
    drill: choice('Drill', [
      ['octaves', 'octaves'],
      ['tongued', 'tongued'],
      ['from-low', 'slurred from below'],
    ]),
    drone: flag('Over a drone'),
    times: count('Times each', 1, 6),
    beats: count('Each note', 1, 4, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES, 'attack'] },
  fixed: ({ drone }, instrument) => ({
    drone: drone ? [(flicks(instrument)[0]?.low ?? instrument.home) - 12 + instrument.transposition] : [],
  }),
  defaults: () => ({ drill: 'octaves' as const, drone: false, times: 2, beats: 1, tempo: 60 }),
  write(writer, { drill, times, beats }, instrument) {
    for (const rule of flicks(instrument)) {
      for (const written of stepwise(rule.low, rule.high)) {
        const below = drill === 'octaves' ? written - 12 : Math.min(rule.from ?? rule.low - 5, written - 4);
        for (let i = 0; i < times; i++) {
          if (drill === 'tongued' || !writer.has(below)) writer.note(written, beats);
          else {
            writer.note(below, beats);
            writer.slur(written, beats);
            writer.slur(below, beats);
          }
        }
        writer.fillBar(true);
        writer.breathe();
      }
    }
  },
});

export const anchoredIntervals = defineFamily({
  id: 'anchored-intervals',
  title: 'Break-crossing intervals',
  section: 'seams',
  purposes: ['the break', 'flexibility', 'tuning'],
  what: 'From one anchor note to each next note and back to the very same anchor.',
  how: 'Slur away and come home. The anchor has to be the same note each time: pitch, level and colour.',
  measured: 'Every crossing; the anchor at each return against the first.',
  specs: {
    anchor: note('Anchor'),
    direction: choice('Go', [
      ['up', 'up'],
      ['down', 'down'],
    ]),
    widest: count('Widest interval', 1, 24, 'semitones'),
    chromatic: flag('Every semitone'),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES, 'sameness', 'interval'] },
  defaults: (instrument, level) => ({
    anchor: Math.max(writtenRange(instrument).low, (seamsOf(instrument)[0]?.below ?? instrument.home) - 2),
    direction: 'up' as const,
    widest: level === 'beginner' ? 7 : level === 'steady' ? 12 : 24,
    chromatic: false,
    beats: 2,
    dynamic: 'mf' as const,
    tempo: 60,
  }),
  write(writer, { anchor, direction, widest, chromatic, beats }) {
    const sign = direction === 'up' ? 1 : -1;
    const away = stepwise(1, widest).filter(
      (size) =>
        (chromatic || ![1, 6, 8, 10, 13, 18, 20, 22].includes(size)) && writer.has(anchor + sign * size),
    );
    const sizes = away.length > 0 ? away : [writer.has(anchor + sign) ? 1 : -1];
    for (const size of sizes) {
      writer.slurred([anchor, anchor + sign * size, anchor], beats);
      writer.fillBar(true);
      writer.breathe();
    }
  },
});

export const altissimoPairs = defineFamily({
  id: 'altissimo-pairs',
  title: 'Altissimo pairs',
  section: 'seams',
  purposes: ['the high notes', 'the break'],
  what: 'From the last comfortable note to each one above it: short doses, daily, for two weeks.',
  how: 'Slur up and come back. When it does not speak after three tries, go on; tomorrow is another day.',
  measured: 'Which notes spoke, how late, squeaks and undertones, pitch.',
  caution: SHORT_DOSE,
  specs: {
    from: note('Last comfortable note'),
    above: count('Notes above', 1, 12),
    times: count('Times each', 1, 4),
    beats: count('Each note', 1, 4, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES] },
  fixed: () => ({ longestSeconds: 300 }),
  defaults: (instrument, level) => ({
    from: Math.max(writtenRange(instrument).low, instrument.registers.at(-1)!.low - instrument.step),
    above: level === 'exacting' ? 6 : 4,
    times: 2,
    beats: 2,
    tempo: 60,
  }),
  write(writer, { from, above, times, beats }, { step }) {
    const highest = Math.min(writer.high, from + above * step);
    const start = highest > from ? from : writer.high - above * step;
    for (const written of stepwise(start + step, Math.max(start + step, highest), step)) {
      for (let i = 0; i < times; i++) writer.slurred([start, written, start], beats);
      writer.fillBar(true);
      writer.breathe();
    }
  },
});

/** Everything a slur crosses, from any music: places of the notes that a break lies before. */
export function crossingsIn(
  instrument: Instrument,
  notes: readonly { written: Midi; attack: string }[],
): number[] {
  return notes.flatMap(({ written, attack }, i) => {
    const before = notes[i - 1];
    return before && attack === 'none' && seamBetween(instrument, before.written, written) ? [i] : [];
  });
}

/** A seam cut out and slowed down: the notes on its two sides, to and fro. */
export function writeSeam(writer: Writer, from: Midi, to: Midi, times: number, beats: number): void {
  for (let i = 0; i < times; i++) {
    writer.slurred([from, to, from], beats);
    writer.fillBar(true);
    writer.breathe();
  }
}

export const justThisSeam = defineFamily({
  id: 'just-this-seam',
  title: 'Just this seam',
  section: 'seams',
  purposes: ['the break'],
  what: 'One crossing alone, slower than in the music.',
  how: 'Slowly to and fro. When five in a row are clean, two notches faster.',
  measured: 'Each crossing: dip, time, overshoot, the step in level and colour.',
  specs: {
    from: note('From'),
    to: note('To'),
    times: count('Times', 2, 12),
    beats: count('Each note', 1, 4, 'beats'),
    dynamic: dynamic(),
    tempo: tempo(),
  },
  counts: { measures: [...MEASURES, 'interval'] },
  defaults: (instrument) => {
    const place = seamsOf(instrument)[0];
    return {
      from: place?.below ?? instrument.home,
      to: place?.above ?? instrument.home + instrument.step,
      times: 5,
      beats: 2,
      dynamic: 'mf' as const,
      tempo: 60,
    };
  },
  write: (writer, { from, to, times, beats }) => writeSeam(writer, from, to, times, beats),
});
