import { midiToHertz, noteName, noteNumber } from '@/core/tuning';
import {
  checkInstrument,
  copyOf,
  crossingsOf,
  findInstrument,
  fundamentalOf,
  handAt,
  instruments,
  instrumentSchema,
  modeOf,
  seamBetween,
  tendenciesOf,
  withRange,
  registerOf,
  seamsOf,
  listeningRange,
  writtenRange,
} from '.';

const check = (candidate: unknown) => checkInstrument(candidate, 'english');

const IDS =
  'flute piccolo alto-flute recorder-sopranino recorder-soprano recorder-alto recorder-tenor recorder-bass recorder-great-bass oboe cor-anglais bassoon contrabassoon clarinet-eb clarinet-bb clarinet-a clarinet-alto clarinet-bass sax-soprano sax-alto sax-tenor sax-baritone whistle-d whistle-c whistle-low-d ney-d ney-c ney-a ney-g';

const named = (id: string) => {
  const found = findInstrument(id);
  if (!found) throw new Error(id);
  return found;
};

describe('the catalogue', () => {
  it('has every instrument once, and none that takes were played on has gone', () => {
    const ids = instruments.map((each) => each.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toEqual(expect.arrayContaining(IDS.split(' ')));
  });

  it.each(instruments.map((each) => [each.id, each] as const))(
    '%s has registers without holes, rising modes its tube has, and a home in range',
    (_, each) => {
      const { low, high } = writtenRange(each);
      expect(each.home).toBeGreaterThanOrEqual(low);
      expect(each.home).toBeLessThanOrEqual(high);
      each.registers
        .slice(1)
        .forEach((register, i) => expect(register.low).toBe(each.registers[i]!.high + each.step));
      let mode = 1;
      for (let note = low; note <= high; note += each.step) {
        expect(modeOf(each, note)).toBeGreaterThanOrEqual(mode);
        mode = modeOf(each, note);
        if (each.series === 'odd') expect(mode % 2).toBe(1);
      }
    },
  );

  it('knows where things break', () => {
    const seams = (id: string) =>
      seamsOf(named(id)).map(({ below, above }) => `${noteName(below)}-${noteName(above)}`);
    expect(seams('flute')).toEqual(['Eb5-E5', 'C#6-D6']);
    expect(seams('clarinet-bb')).toEqual(['F#4-G4', 'Bb4-B4', 'C6-C#6']);
    expect(seams('oboe')).toEqual(['C5-C#5', 'Eb5-E5', 'G#5-A5', 'C6-C#6']);
    expect(registerOf(named('bassoon'), noteNumber('C4')).id).toBe('overblown');
    expect(modeOf(named('clarinet-bb'), noteNumber('B4'))).toBe(3);
  });

  it('transposes', () => {
    expect(listeningRange(named('contrabassoon')).lowestHz).toBeCloseTo(29.1, 1);
    expect(listeningRange(named('clarinet-bb')).lowestHz).toBeCloseTo(midiToHertz(noteNumber('D3')), 6);
    expect(listeningRange(named('piccolo')).highestHz).toBeCloseTo(midiToHertz(noteNumber('C8')), 6);
  });
});

describe('what the hand does, seams and the player’s own', () => {
  it('knows the fundamental of a fingering', () => {
    expect(noteName(fundamentalOf(named('clarinet-bb'), noteNumber('B4')))).toBe('E3');
    expect(noteName(fundamentalOf(named('flute'), noteNumber('G5')))).toBe('G4');
    expect(noteName(fundamentalOf(named('flute'), noteNumber('D5')))).toBe('D5');
    expect(noteName(fundamentalOf(named('bassoon'), noteNumber('C4')))).toBe('C3');
  });

  it('flicks when tongued and when slurred from F3 or below, and only then', () => {
    const hand = (note: string, from: string | null) =>
      handAt(named('bassoon'), noteNumber(note), from === null ? null : noteNumber(from))?.mark;
    expect([hand('A3', null), hand('A3', 'F3'), hand('A3', 'F#3'), hand('A3', 'C4')]).toEqual([
      'flick a',
      'flick a',
      undefined,
      undefined,
    ]);
    expect([hand('C4', 'A2'), hand('D4', 'A2'), hand('C#4', 'A2')]).toEqual([
      'flick c',
      'flick if need',
      undefined,
    ]);
    expect(hand('G3', null)).toBe('half-hole');
    expect(handAt(named('oboe'), noteNumber('A5'), null)?.mark).toBe('2nd vent');
  });

  it('crosses each break both ways', () => {
    for (const each of instruments) {
      const crossings = crossingsOf(each);
      expect(crossings.every((seam) => seam.width <= 12 && seam.breaks === 1)).toBe(true);
      const keys = new Set(crossings.map((seam) => `${seam.from}>${seam.to}`));
      expect(crossings.every((seam) => keys.has(`${seam.to}>${seam.from}`))).toBe(true);
      expect(keys.size).toBe(crossings.length);
    }
    expect(seamBetween(named('flute'), noteNumber('C5'), noteNumber('D5'))).toBeNull();
    expect(seamBetween(named('flute'), noteNumber('E5'), noteNumber('Eb5'))).toMatchObject({
      direction: 'down',
      width: 1,
    });
  });

  it('guesses tendencies by loudness', () => {
    const cents = (id: string, note: string, loudness: 'soft' | 'loud') =>
      tendenciesOf(named(id), noteNumber(note), loudness).reduce((sum, each) => sum + each.cents, 0);
    expect(cents('clarinet-bb', 'C5', 'loud')).toBeLessThan(cents('clarinet-bb', 'C5', 'soft'));
    expect(cents('flute', 'C4', 'soft')).toBeLessThan(0);
    expect(cents('recorder-alto', 'C5', 'loud')).toBeGreaterThan(0);
  });

  it('are data that can be copied, changed and read back', () => {
    for (const each of instruments) {
      expect(instrumentSchema.parse(JSON.parse(JSON.stringify(each)))).toEqual(each);
      expect(check(each)).toMatchObject({ ok: true });
    }
    const mine = copyOf(named('whistle-d'), 'mine', 'Whistle in E flat');
    expect(check({ ...mine, transposition: 13 })).toMatchObject({
      ok: true,
      value: { copiedFrom: 'whistle-d' },
    });
    const wider = withRange(mine, [60, 74], 88);
    expect(check(wider)).toMatchObject({ ok: true });
    expect(writtenRange(wider)).toEqual({ low: 60, high: 88 });
  });

  it.each([
    ['name', { name: '' }, /^name: must not be empty/],
    ['home', { home: 20 }, /^home: must lie between/],
    ['breath', { breathSeconds: 0 }, /^breathSeconds: must be 2 s or more/],
  ])('say which field is wrong: %s', (_, change, words) => {
    const checked = check({ ...copyOf(named('oboe'), 'mine'), ...change });
    expect(checked.ok ? '' : checked.problem).toMatch(words);
  });

  it.each([
    ['contrabassoon', -24, /^transposition: B♭1 would sound at 15 Hz; Gold Reed hears from 23 Hz up$/],
    ['piccolo', 24, /^transposition: C7 would sound at 8372 Hz; Gold Reed hears up to 5274 Hz$/],
  ])('say when the %s would sound where nothing can be heard of it', (id, transposition, words) => {
    const checked = check({ ...copyOf(named(id), 'mine'), transposition });
    expect(checked.ok ? '' : checked.problem).toMatch(words);
  });

  it('say when registers do not meet, or a mode cannot be', () => {
    const clarinet = copyOf(named('clarinet-bb'), 'mine');
    const even = structuredClone(clarinet);
    even.registers[2]!.modes[0]!.mode = 2;
    expect(check(even)).toMatchObject({
      ok: false,
      problem: expect.stringMatching(/odd modes only/) as unknown,
    });
    const torn = structuredClone(clarinet);
    torn.registers[1]!.low = 69;
    expect(check(torn)).toMatchObject({
      ok: false,
      problem: expect.stringMatching(/right above/) as unknown,
    });
  });
});

it('the note below a break is found even where a file’s registers and step do not fit', () => {
  const ney = named('ney-d');
  const [low, second, ...rest] = ney.registers;
  const odd = {
    ...ney,
    step: 1 as const,
    registers: [low!, { ...second!, low: second!.low + 0.5 }, ...rest],
  };
  expect(seamsOf(odd)[0]!.below).toBe(second!.low - 0.5);
  expect(seamsOf(ney)[0]).toEqual({ below: second!.low - 1, above: second!.low });
});
