import { spell, spelledName } from '.';

describe('the name of a note where it stands', () => {
  it.each([
    [68, -4, 'A♭4', 'As4', 'la♭4'],
    [68, 3, 'G♯4', 'Gis4', 'sol♯4'],
    [70, -3, 'B♭4', 'B4', 'si♭4'],
    [71, 0, 'B4', 'H4', 'si4'],
    [59, -6, 'C♭4', 'Ces4', 'do♭4'],
    [63, -1, 'E♭4', 'Es4', 'mi♭4'],
    [64.5, 0, 'E½♯4', 'E½♯4', 'mi½♯4'],
  ])('%d in %d fifths', (midi, fifths, english, german, fixedDo) => {
    const spelling = spell(midi, fifths);
    expect([
      spelledName(spelling, 'english'),
      spelledName(spelling, 'german'),
      spelledName(spelling, 'fixed-do'),
    ]).toEqual([english, german, fixedDo]);
  });
});
