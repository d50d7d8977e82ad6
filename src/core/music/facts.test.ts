import {
  findInstrument,
  instruments,
  modeOf,
  registerOf,
  seamsOf,
  soundingOf,
  writtenRange,
} from '@/core/instruments';
import { scoreOfFamily as made } from './scores.testing';
import { noteName, noteNumber } from '@/core/tuning';
import {
  barsOf,
  excerpt,
  families,
  findFamily,
  hairpinsOf,
  placesIn,
  scoreOf,
  secondsAt,
  slursOf,
  ticksOf,
  type Score,
} from '.';

const n = noteNumber;
const names = (score: Score) => score.notes.map((note) => noteName(note.written)).join(' ');
const labels = (score: Score) => score.notes.flatMap((note) => note.label ?? []);
const attacks = (score: Score) => new Set(score.notes.map((note) => note.attack));

describe('sound', () => {
  it('a travel begins and ends on the reference, and goes down before it goes up', () => {
    const range = { low: n('F4'), high: n('B4') };
    const travel = made('reference-travel', 'flute', { reference: n('A4'), range, joined: false });
    expect(names(travel)).toBe('A4 G#4 G4 F#4 F4 A4 Bb4 B4 A4');
    expect(labels(travel)).toEqual(['reference', 'reference', 'reference']);
    const pairs = made('reference-travel', 'flute', { reference: n('A4'), range, joined: true });
    expect(slursOf(pairs.notes).map(({ from, to }) => to - from)).toEqual([1, 1, 1]);
  });

  it('a long hold walks down to each bottom note and holds it for as long as it is held', () => {
    const hold = made('long-hold', 'oboe', { range: { low: n('C4'), high: n('C#4') }, steps: 4 });
    expect(names(hold)).toBe('G4 F4 E4 D4 C4 G#4 F#4 F4 Eb4 C#4');
    expect(hold.notes.filter((note) => note.role === 'hold').map((note) => note.open)).toEqual([true, true]);
    expect(hold.tempo).toBeNull();
    expect(hold.longestSeconds).toBeGreaterThan(0);
  });

  it('two-note legato has the same pair in every octave', () => {
    const pairs = made('two-note-legato', 'flute', { low: n('C4'), turns: 1 });
    expect(names(pairs)).toBe('C4 C#4 C4 C5 C#5 C5 C6 C#6 C6 C7 C#7 C7');
  });

  it('the problem note meets its neighbour and ends alone', () => {
    const circle = made('problem-circle', 'clarinet-bb', {
      problem: n('Bb4'),
      neighbour: n('B4'),
      third: n('C5'),
      times: 2,
    });
    expect(names(circle)).toMatch(/^Bb4 B4 Bb4 B4 B4 Bb4 B4 .* Bb4$/);
  });

  it.each([
    ['0', 'G4', 'C'],
    ['-3', 'G4', 'Eb'],
    ['4', 'G4', 'E'],
  ])('a tune ends on its tonic in the key of %s', (key, _, tonic) => {
    for (const tune of ['weir', 'lanterns', 'ferry']) {
      const melody = made('melody', 'oboe', { tune, key });
      expect(noteName(melody.notes.at(-1)!.written)).toMatch(new RegExp(`^${tonic}\\d`));
      expect(melody.fifths).toBe(Number(key));
      expect(melody.notes.at(-1)!.beats).toBeGreaterThanOrEqual(6);
    }
  });
});

describe('exploring', () => {
  it('a breath sweep grows and fades, on each of the tubes', () => {
    const sweep = made('breath-sweep', 'recorder-alto', { stage: 'one', tube: 'head' });
    expect(sweep.notes).toMatchObject([{ hairpin: 'swell', dynamic: 'pp', attack: 'breath', label: 'head' }]);
    expect(names(made('breath-sweep', 'recorder-alto', { note: n('A4'), stage: 'octaves' }))).toBe('A4 A5');
    expect(made('breath-sweep', 'recorder-alto', { note: n('A4'), stage: 'straight' }).notes).toHaveLength(9);
  });

  it('bends go both ways from one note and end plain', () => {
    expect(labels(made('bends', 'flute'))).toEqual(['plain', '↘ down', '↗ back', '↗ up', '↘ back', 'plain']);
    expect(new Set(made('bends', 'flute', { note: n('B4') }).notes.map((note) => note.written))).toEqual(
      new Set([n('B4')]),
    );
  });

  it('a comparison takes its conditions in turn', () => {
    const compared = made('comparison', 'oboe', { pair: 'tongue', rounds: 2 });
    const starts = compared.notes.filter((note) => note.attack === 'tongued').map((note) => note.label);
    expect(starts).toEqual(['tongue high', 'tongue low', 'tongue high', 'tongue low']);
  });

  it('an edge is grown into and stayed at, in a short dose', () => {
    const edge = made('edge-hold', 'flute', { times: 2 });
    expect(edge.notes.map((note) => [note.dynamic, note.hairpin])).toEqual([
      ['mf', 'grow'],
      ['ff', null],
      ['mf', 'grow'],
      ['ff', null],
    ]);
    expect(edge.longestSeconds).toBe(240);
  });
});

describe('across the break', () => {
  it.each([
    ['LHL', 'C4 C5 C4'],
    ['HLH', 'C5 C4 C5'],
    ['LH', 'C4 C5 C4 C5 C4 C5'],
    ['LHHL', 'C4 C5 C5 C4'],
    ['HLLH', 'C5 C4 C4 C5'],
  ])('octave slurs %s tongue the first note only', (pattern, row) => {
    const slurs = made('octave-slurs', 'flute', { pattern, range: { low: n('C4'), high: n('C4') } });
    expect(names(slurs)).toBe(row);
    expect(slurs.notes.map((note) => note.attack === 'tongued')).toEqual(slurs.notes.map((_, i) => i === 0));
  });

  it('a falling chain goes down in one slur', () => {
    const chain = made('octave-slurs', 'flute', {
      pattern: 'falling',
      range: { low: n('C4'), high: n('D4') },
    });
    expect(names(chain)).toBe('D5 D4 C#5 C#4 C5 C4');
    expect(slursOf(chain.notes)).toEqual([{ from: 0, to: 5 }]);
  });

  it('a climb checks, climbs softer, and comes back', () => {
    const climb = made('harmonic-climb', 'flute', {
      range: { low: n('C4'), high: n('C4') },
      modes: 3,
      check: true,
      softer: true,
      back: true,
    });
    expect(climb.notes.map((note) => `${noteName(note.written)} ${note.dynamic}`)).toEqual([
      'C5 f',
      'G5 f',
      'C4 f',
      'C5 mf',
      'C4 mf',
      'G5 mp',
      'C4 mp',
    ]);
    expect(climb.notes.filter((note) => note.fingered === n('C4')).map((note) => note.mode)).toEqual([2, 3]);
  });

  it('anchored intervals go down as well, to two octaves', () => {
    const down = made('anchored-intervals', 'oboe', {
      anchor: n('C6'),
      direction: 'down',
      widest: 24,
      chromatic: true,
    });
    expect(noteName(down.notes.at(-2)!.written)).toBe('C4');
    expect(down.notes).toHaveLength(3 * 24);
  });

  it('altissimo pairs rise from the last comfortable note in a dose that ends', () => {
    const pairs = made('altissimo-pairs', 'clarinet-bb', { from: n('C6'), above: 3, times: 1 });
    expect(names(pairs)).toBe('C6 C#6 C6 C6 D6 C6 C6 Eb6 C6');
    expect(pairs.longestSeconds).toBe(300);
  });

  it('the eight ways are eight, with their attacks and hairpins', () => {
    const all = made('eight-ways', 'oboe', { from: n('G4'), notes: 4 });
    expect(labels(all)).toHaveLength(8);
    expect(attacks(all)).toEqual(new Set(['tongued', 'back-of-tongue', 'breath', 'none']));
    expect(hairpinsOf(all.notes).map(({ hairpin, from, to }) => `${hairpin} ${to - from + 1}`)).toEqual([
      'fade 4',
      'grow 4',
    ]);
    const triplets = made('eight-ways', 'oboe', { from: n('G4'), notes: 4, way: 'triplets' });
    expect(triplets.notes.every((note) => Math.abs(note.beats - 1 / 3) < 1e-9)).toBe(true);
    expect(triplets.notes.length % 3).toBe(0);
  });

  it('low chromatics reach the bottom, by every attack', () => {
    for (const [attack, how] of [
      ['tongued', 'tongued'],
      ['breath', 'breath'],
      ['strong', 'tongued'],
    ] as const) {
      const low = made('low-chromatics', 'bassoon', { attack });
      expect(Math.min(...low.notes.map((note) => note.written))).toBe(n('Bb1'));
      expect(attacks(low)).toEqual(new Set([how]));
    }
    expect(made('low-chromatics', 'bassoon', { attack: 'strong' }).notes[0]?.dynamic).toBe('f');
  });

  it('the register test is the clarinet’s written G sharp, fading', () => {
    const test = made('register-test', 'clarinet-bb');
    expect(noteName(test.notes[0]!.written)).toBe('G#5');
    expect(test.notes.every((note) => note.hairpin === 'fade' && note.dynamic === 'f')).toBe(true);
  });
});

describe('dynamics', () => {
  it('tapers end in nothing, begin in nothing, or both', () => {
    const range = { low: n('A4'), high: n('A4') };
    const taper = (direction: string) =>
      made('tapers', 'oboe', { range, direction }).notes.map((note) => `${note.dynamic} ${note.hairpin}`);
    expect(taper('out')).toEqual(['f fade']);
    expect(taper('in')).toEqual(['pp grow']);
    expect(taper('both')).toEqual(['f fade', 'pp grow']);
  });

  it('swells go up the scale of their key, and peak on the bar', () => {
    const swells = made('swells', 'flute', { key: '2', range: { low: n('D4'), high: n('A4') } });
    expect(names(swells)).toBe('D4 E4 F#4 G4 A4');
    expect(swells.notes.every((note) => (note.startBeat + note.beats / 2) % 4 === 0)).toBe(true);
  });

  it('a window has both of its ends, a line both of its directions', () => {
    const range = { low: n('C5'), high: n('C5') };
    expect(made('dynamic-window', 'oboe', { range }).notes.map((note) => note.dynamic)).toEqual(['pp', 'ff']);
    const line = made('reversed-dynamics', 'oboe', { times: 1, notes: 5 });
    expect(hairpinsOf(line.notes).map(({ hairpin }) => hairpin)).toEqual(['grow', 'fade']);
    expect(labels(line)).toEqual(['reversed', 'as written']);
  });

  it('pulses never stop the note', () => {
    const pulses = made('pulses', 'flute', { pulses: 6, longer: false });
    expect(pulses.notes.slice(1).every((note) => note.attack === 'none')).toBe(true);
    expect(new Set(pulses.notes.map((note) => note.written)).size).toBe(1);
  });

  it('whisper tones are the flutes’ alone', () => {
    expect(findFamily('whisper-tones')!.make(findInstrument('oboe')!)).toMatchObject({ ok: false });
    const whisper = made('whisper-tones', 'flute', { times: 1 });
    expect(whisper.notes[0]).toMatchObject({ dynamic: 'pp', attack: 'breath', label: 'whisper' });
    expect(whisper.notes[0]!.fingered).not.toBeNull();
    expect(whisper.notes[1]).toMatchObject({ fingered: null, dynamic: 'p' });
  });
});

describe('intonation', () => {
  it.each([
    ['fifth', 7],
    ['major-third', 4],
    ['octave', 12],
    ['seventh', 10],
  ])('a %s stands over a drone that sounds at pitch', (interval, size) => {
    const clarinet = findInstrument('clarinet-bb')!;
    const work = made('drone-work', 'clarinet-bb', { drone: n('C4'), interval });
    expect(work.drone).toEqual([soundingOf(clarinet, n('C4'))]);
    expect(work.notes[0]!.written).toBe(n('C4') + size);
    expect(made('drone-work', 'clarinet-bb', { drone: n('C4'), interval, partner: true })).toMatchObject({
      drone: [],
      company: true,
    });
  });

  it('a part in a chord is not in its drone', () => {
    const third = made('section-chords', 'oboe', { root: n('C5'), chord: 'minor', part: '1' });
    expect(names(third)).toBe('Eb5');
    expect(third.drone).toEqual([n('C5'), n('G5')]);
  });

  it('octaves are checked in pairs, blind notes come in an order of their own', () => {
    const check = made('octave-check', 'flute', { range: { low: n('C5'), high: n('D5') }, step: 2 });
    expect(names(check)).toBe('C5 C6 D5 D6');
    const blind = (seed: number) => names(made('blind-tuning', 'flute', { seed }));
    expect(blind(1)).toBe(blind(1));
    expect(blind(1)).not.toBe(blind(2));
    expect(made('blind-tuning', 'flute').blind).toBe(true);
  });

  it('a scan meets every note at every loudness', () => {
    const flute = findInstrument('flute')!;
    const { low, high } = writtenRange(flute);
    const scan = made('tendency-scan', 'flute', { range: { low, high } });
    for (const dynamic of ['mf', 'p', 'f'])
      expect(scan.notes.filter((note) => note.dynamic === dynamic)).toHaveLength(high - low + 1);
  });
});

describe('air, and the day', () => {
  it('air drills have pictures and no notes, and claim no figure', () => {
    for (const drill of ['slow-fast', 'much-little', 'bursts', 'paper', 'palm']) {
      const air = made('air-drills', 'oboe', { drill });
      expect(air.notes).toEqual([]);
      expect(air.pictures.some((picture) => picture.shape === 'in')).toBe(true);
      expect(air.counts).toMatchObject({ measures: [], events: [] });
    }
  });

  it('no tune’s line is broken: in every key, on every instrument, its intervals are those of a tune', () => {
    const intervals = (score: Score) =>
      score.notes
        .slice(1)
        .map(({ written }, i) => written - score.notes[i]!.written)
        .join(' ');
    const [melody, keys] = ['melody', 'twelve-keys'].map((id) => families.find((each) => each.id === id)!);
    const known = new Set(
      ['weir', 'lanterns', 'ferry'].map((tune) => intervals(made('melody', 'clarinet-bb', { tune }))),
    );
    for (const instrument of instruments) {
      for (const tune of ['weir', 'lanterns', 'ferry'])
        for (let key = -5; key <= 6; key++) {
          const score = melody!.make(instrument, { tune, key: String(key) });
          if (score.ok) expect(known).toContain(intervals(score.value));
        }
      const score = keys!.make(instrument);
      if (!score.ok) continue;
      const rows = score.value.notes.reduce<number[][]>((all, { written, label }) => {
        if (label !== null) all.push([]);
        all.at(-1)!.push(written);
        return all;
      }, []);
      const shapes = rows.map((each) => each.map((written) => written - each[0]!).join(' '));
      expect(new Set(shapes).size).toBe(1);
    }
  });

  it('the day ends with a soft first entry', () => {
    expect(made('on-the-day', 'oboe').notes.at(-1)).toMatchObject({
      dynamic: 'p',
      attack: 'breath',
      label: 'first entry',
    });
  });

  it('modes and registers of all notes are the instrument’s', () => {
    for (const family of families) {
      const instrument = findInstrument(family.unfit(findInstrument('flute')!) ? 'bassoon' : 'flute')!;
      for (const note of made(family.id, instrument.id).notes) {
        if (note.fingered === null) expect(note.mode).toBe(modeOf(instrument, note.written));
        expect(registerOf(instrument, note.written).low).toBeLessThanOrEqual(note.written);
      }
    }
    expect(seamsOf(findInstrument('ney-d')!)[0]).toEqual({ below: n('D5') - 0.5, above: n('D5') });
  });
});

describe('swing', () => {
  it('puts the second quaver on two thirds of its beat, and leaves the beats where they are', () => {
    const scale = made('roaming-scale', 'flute', { swing: true, tempo: 60 });
    expect([0, 0.5, 1, 1.5, 4].map((beat) => Number(secondsAt(scale, beat).toFixed(4)))).toEqual([
      0, 0.6667, 1, 1.6667, 4,
    ]);
    expect(secondsAt({ ...scale, swing: false }, 1.5)).toBe(1.5);
  });
});

describe('written values', () => {
  const row = (notes: { startBeat: number; beats: number }[], beatsPerBar = 4) =>
    scoreOf({
      family: 'test',
      title: 'row',
      instrumentId: 'flute',
      tempo: 60,
      beatsPerBar,
      countInBeats: 0,
      vibrato: 'free',
      notes: notes.map((note) => ({
        written: 69,
        attack: 'tongued' as const,
        dynamic: 'mf' as const,
        ...note,
      })),
    });
  const values = (score: Score) =>
    barsOf(score).map((bar) =>
      bar.tokens
        .map(
          ({ note, type, dots, tuplet, last }) =>
            `${note === null ? 'r' : ''}${type}${dots ? '.' : ''}${tuplet ? tuplet.actual : ''}${note !== null && !last ? '~' : ''}`,
        )
        .join(' '),
    );

  it.each([
    [[{ startBeat: 0, beats: 3 }], ['half. rquarter']],
    [[{ startBeat: 0, beats: 5 }], ['whole~', 'quarter rquarter rhalf']],
    [[{ startBeat: 1, beats: 2.5 }], ['rquarter half~ eighth reighth']],
    [[{ startBeat: 0, beats: 0.75 }], ['eighth. r16th rquarter rhalf']],
  ])('of %j', (notes, expected) => {
    expect(values(row(notes))).toEqual(expected);
  });

  it('triplets are triplets, also where a bar has three beats', () => {
    const triplets = Array.from({ length: 9 }, (_, i) => ({ startBeat: i / 3, beats: 1 / 3 }));
    expect(values(row(triplets, 3))).toEqual([Array(9).fill('eighth3').join(' ')]);
    expect([ticksOf(1 / 3), ticksOf(0.25), ticksOf(2 / 3), ticksOf(1.5)]).toEqual([80, 60, 160, 360]);
  });

  it('a place cut out keeps its values and loses what went before', () => {
    const melody = made('melody', 'clarinet-bb', { tune: 'ferry' });
    const places = placesIn(melody, findInstrument('clarinet-bb')!, 'english');
    expect(places.some((place) => place.kind === 'seam')).toBe(true);
    const at = places.find((place) => place.kind === 'seam')!.note;
    const drill = excerpt(melody, at - 1, at, 0.5);
    expect(drill.notes.map((note) => note.written)).toEqual([
      melody.notes[at - 1]!.written,
      melody.notes[at]!.written,
    ]);
    expect(drill.notes[0]!.attack).not.toBe('none');
    expect(drill.notes[0]!.startBeat).toBeLessThan(4);
    expect(drill.tempo).toBe(30);
  });
});
