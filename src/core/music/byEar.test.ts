import { findInstrument } from '@/core/instruments';
import { findFamily, phrasesByKey } from '.';

const flute = findInstrument('flute')!;

describe('music that is played by ear round the keys', () => {
  it('has a phrase for each key, called by its name, where the key begins', () => {
    const made = findFamily('twelve-keys')!.make(flute, { from: '0', keys: 4, notes: 'first' });
    if (!made.ok) throw new Error(made.problem);
    expect(made.value.byEar).toBe(true);
    const phrases = phrasesByKey(made.value);
    expect(phrases.map(({ name }) => name)).toEqual(['C', 'F', 'B♭', 'E♭']);
    const length = made.value.notes.length / 4;
    expect(phrases.map(({ from }) => from)).toEqual([0, length, 2 * length, 3 * length]);
    expect(phrases.map(({ from }) => made.value.notes[from]!.startBeat)).toEqual(
      phrases.map(({ startBeat }) => startBeat),
    );
  });

  it('is called by its signature where no name is written', () => {
    const note = { key: 0, label: null, startBeat: 0 };
    const keys = [0, 0, -1, -4, 3].map((key, i) => ({ ...note, key, startBeat: i }));
    expect(phrasesByKey({ notes: keys }).map(({ name }) => name)).toEqual([
      'no sharps or flats',
      '1 flat',
      '4 flats',
      '3 sharps',
    ]);
  });
});
