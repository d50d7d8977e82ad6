import { labels, names, scoreOfFamily as made } from './scores.testing';
import { noteName, noteNumber as n } from '@/core/tuning';
import { slursOf } from '.';

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
