import { steadyRemarks } from './steadyRemarks';

const remarks = (...all: number[]) => steadyRemarks(all, 440, 'english');

it('asks about a drone by its name, and names what hums', () => {
  expect(remarks(220.7)).toEqual([
    expect.stringMatching(/^A3 sounded all along, at 220\.7 Hz.* Is it a drone\?/),
  ]);
  expect(steadyRemarks([246.9], 440, 'german')).toEqual([expect.stringMatching(/^H3 /)]);
  expect(remarks(100.02)).toEqual([expect.stringMatching(/hums at 100 Hz/)]);
  expect(remarks(120)).toEqual([expect.stringMatching(/hums at 120 Hz/)]);
  expect(remarks(150)).toEqual([expect.stringMatching(/a drone/)]);
});

it('does not ask whether what belongs to a hum is a drone', () => {
  expect(remarks(100, 149.7)).toEqual([expect.stringMatching(/hums at 100 Hz/)]);
  expect(remarks(100, 146.8)).toEqual([
    expect.stringMatching(/hums at 100 Hz/),
    expect.stringMatching(/^D3 .* a drone/),
  ]);
});
