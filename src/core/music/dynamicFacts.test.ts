import { findInstrument, soundingOf, writtenRange } from '@/core/instruments';
import { labels, names, scoreOfFamily as made } from './scores.testing';
import { noteNumber as n } from '@/core/tuning';
import { findFamily, hairpinsOf } from '.';

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
