import { Random } from '@/core/base';
import { findInstrument } from '@/core/instruments';
import { limitsOf } from '@/core/verdict';
import { changesIn, EVERYTHING, isSameMusic, reedsOf, reportOf, through, toldOf, versus } from '.';
import { cellOf, eightWeeks, rememberedOf, rowOf, slurOf, START_DAY } from './memory.testing';

const flute = findInstrument('flute')!;
const limits = limitsOf('steady');
const NOW = START_DAY + 56;

describe('a report', () => {
  it('tells of its time what was played, what held, what was said, and where to listen', () => {
    const played = eightWeeks(new Random(2), (day) => ({
      row: {
        durationSeconds: 60,
        audioBytes: day > 50 ? 9 : 0,
        remark: day > 53 ? 'The last.' : '',
        title: day % 2 < 1 ? 'Octave slurs' : 'Just this seam',
      },
      notes: [cellOf(67, -20)],
      crossings: Array.from({ length: 6 }, (_, i) => slurOf(74, 76, day > 20 || i > 2, { atSeconds: i })),
    }));
    const report = reportOf(played, flute, limits, START_DAY + 28, NOW);
    expect(report).toMatchObject({ takes: 12, sittings: 12, minutes: 12 });
    expect(report.exercises.reduce((sum, { takes }) => sum + takes, 0)).toBe(12);
    expect(report.seams.map(({ from, to }) => [from, to])).toEqual([[74, 76]]);
    expect(report.problems[0]!.note.written).toBe(67);
    expect(report.remarks).toHaveLength(1);
    // Of the takes with sound none opened: the latest that held, then the beginning of another.
    expect(report.places.map(({ why }) => why.kind)).toEqual(['held', 'remark']);
    expect(report.places[0]).toMatchObject({ fromSeconds: 3.5, toSeconds: 7.5 });
    expect(report.turns.every(({ day }) => day >= START_DAY + 28)).toBe(true);
    expect(report.notes.find(({ written }) => written === 67)!.centre).toBeCloseTo(-20, -1);
    expect(reportOf([], flute, limits, START_DAY, NOW)).toMatchObject({ takes: 0, places: [] });
  });
});

describe('a reed', () => {
  it('is told by what was played on it, the latest first, its hours counted', () => {
    const played = eightWeeks(new Random(1), (day) => ({
      row: {
        reed: day < 28 ? 'old' : 'new',
        durationSeconds: 90,
        figures: { wobble: [day < 28 ? 5 + 0.01 * day : 2 + 0.01 * day, null, 1, null] },
      },
      crossings: [slurOf(74, 76, day >= 28)],
    }));
    const [late, early, ...rest] = reedsOf(played, limits);
    expect(rest).toEqual([]);
    expect(late).toMatchObject({ name: 'new', takes: 12, sittings: 12, minutes: 18 });
    expect(late!.slurs).toMatchObject({ clean: 12, of: 12 });
    expect(early!.slurs).toMatchObject({ clean: 0, of: 12 });
    const wobble = early!.figures.find(({ followed }) => followed.id === 'wobble')!;
    expect(wobble.interval!.low).toBeGreaterThan(late!.figures[0]!.interval!.high);
    expect(reedsOf(rememberedOf([{ day: 0 }]), limits)).toEqual([]);
  });
});

describe('two takes', () => {
  const figures = (cents: number, clean: number) =>
    ({
      'pitch-middle': [cents, 3, 9, null],
      drift: [0.5, null, 1, null],
      'slurs-clean': [clean, null, 8, 8],
    }) as const;

  it('differ where their notes do not account for it, and nothing is said of single readings', () => {
    const rows = versus({ figures: figures(-9, 4) }, { figures: figures(-2, 8) });
    const of = (id: string) => rows.find((row) => row.id === id)!;
    // Medians of nine notes that vary by 3: each is good to 1.25 cents.
    expect(of('pitch-middle')).toMatchObject({ difference: 7, differs: true });
    expect(of('drift').differs).toBeNull();
    expect(of('slurs-clean')).toMatchObject({ first: 50, second: 100, unit: '%', differs: null });
    expect(versus({ figures: figures(-9, 4) }, { figures: figures(-7, 4) })[0]!.differs).toBe(false);
  });

  it('are of the same music whatever the tempo, and not across another seam', () => {
    const row = (parameters: Record<string, unknown>) => rowOf(0, { parameters });
    expect(isSameMusic(row({ from: 74, to: 76, tempo: 60 }), row({ to: 76, from: 74, tempo: 92 }))).toBe(
      true,
    );
    expect(isSameMusic(row({ from: 74, to: 76 }), row({ from: 76, to: 74 }))).toBe(false);
  });

  it('are compared in what both have', () => {
    expect(versus({ figures: figures(1, 2) }, { figures: {} })).toEqual([]);
  });
});

describe('a lens', () => {
  const played = rememberedOf([
    { day: 0, row: { reed: 'old', cue: 'air first' }, notes: [cellOf(67, 1, { dynamic: 'pp' })] },
    { day: 1, row: { reed: 'new' }, notes: [cellOf(67, 5, { slurred: true, from: 1 })] },
    { day: 2, row: { reed: 'new' }, crossings: [slurOf(76, 74, true), slurOf(74, 76, true)] },
  ]);

  it('lets through what was asked for', () => {
    const kept = (part: object) => through(played, { ...EVERYTHING, ...part });
    expect(kept({})).toEqual(played);
    expect(kept({ reed: 'new' })).toHaveLength(2);
    expect(kept({ cue: 'air first' })).toHaveLength(1);
    expect(kept({ loudness: 'soft' }).flatMap(({ notes }) => notes)).toHaveLength(1);
    expect(kept({ come: 'slurred' }).flatMap(({ notes }) => notes)[0]!.cents).toBe(5);
    expect(kept({ direction: 'up' }).flatMap(({ crossings }) => crossings)).toHaveLength(1);
    expect(kept({ since: START_DAY + 0.5 })).toHaveLength(2);
  });

  it('offers what was told, and tells when it became another', () => {
    expect(toldOf(played, 'reed')).toEqual(['new', 'old']);
    expect(changesIn(played)).toEqual([{ day: START_DAY + 1, of: 'reed', to: 'new' }]);
  });
});
