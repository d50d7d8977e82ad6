import { createElement } from 'react';
import { judge, limitsOf, say } from '@/core/verdict';
import { asWritten } from '@/core/verdict/asWritten.testing';
import { advise } from '@/core/verdict/coach';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { defaultSettings, type Settings } from '@/store';
import { mount, type Mounted } from '@/ui/mount.testing';
import { AdviceCard } from './AdviceCard';
import { TakeStrip } from './TakeStrip';

const mockPlaces: string[] = [];
const mockOnStand: { family: string; parameters: Record<string, unknown> }[] = [];
let mockSettings: Settings;
jest.mock('expo-router', () => ({ useRouter: () => ({ push: (path: string) => mockPlaces.push(path) }) }));
// Parts that a browser loads later are here at once.
jest.mock('./laterDetail', () => ({
  ...jest.requireActual<object>('./CloseUp'),
  ...jest.requireActual<object>('../../ui/charts'),
}));
jest.mock('@/store', () => ({
  ...jest.requireActual<object>('@/store'),
  useSettings: () => ({
    settings: mockSettings,
    ready: true,
    change: (part: Partial<Settings>) => {
      mockSettings = { ...mockSettings, ...part };
      return Promise.resolve();
    },
  }),
  findEntry: () => new Promise(() => undefined),
  putOnStand: (score: (typeof mockOnStand)[number]) => {
    mockOnStand.push(score);
    return Promise.resolve();
  },
}));

let page: Mounted;
beforeEach(() => {
  mockSettings = defaultSettings;
  mockPlaces.length = 0;
  mockOnStand.length = 0;
});
afterEach(() => page.leave());

describe('a take for review', () => {
  const score = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 70 }, tempo: 60 });
  const take = asWritten(score, {
    events: [
      { group: 1, kind: 'blip', after: 0.02, midi: 88 },
      { group: 7, kind: 'gap', after: 0.01 },
    ],
  });
  const judgement = judge(take, limitsOf('steady'));
  const verdict = say(judgement, 'english');

  it('shows first what stood out, all of it on demand, and one place from near at a time', () => {
    page = mount(createElement(TakeStrip, { take, judgement, verdict }));
    const rows = () =>
      Array.from(
        page.page.querySelectorAll('[data-testid^="note-"]'),
        (row) => row.id || row.getAttribute('data-testid'),
      );
    expect(page.words()).toContain('The notes that stood out');
    expect(rows()).toEqual(['note-1', 'note-7']);
    page.tap(page.byId('all-notes'));
    expect(rows()).toHaveLength(judgement.notes.length);
    page.tap(page.byId('note-1'));
    expect(page.byId('note-1').getAttribute('aria-expanded')).toBe('true');
    page.tap(page.byId('note-7'));
    expect(page.byId('note-1').getAttribute('aria-expanded')).toBe('false');
    expect(page.byId('note-7').getAttribute('aria-expanded')).toBe('true');
  });

  it('one thing to try, the other schools a tap away, and the drill on the stand with one tap', () => {
    const advice = advise(judgement, 'air', 'english')!;
    page = mount(createElement(AdviceCard, { advice, instrument: take.instrument, from: '/log/x' }));
    expect(page.byId('attempt').textContent).toBe(advice.attempt);
    for (const { attempt } of advice.others) expect(page.words()).not.toContain(attempt);
    page.tap(page.find('button', 'Other ways to see it'));
    for (const { attempt } of advice.others) expect(page.words()).toContain(attempt);
    if (advice.disagreement) expect(page.words()).toContain('Teachers differ.');
    page.tap(page.byId('drill-it'));
    expect(mockOnStand).toMatchObject([
      {
        family: 'just-this-seam',
        parameters: { from: score.notes[0]!.written, to: score.notes[1]!.written },
      },
    ]);
    expect(mockPlaces).toEqual(['/stand']);
  });

  it('an exercise that this instrument cannot be given opens its page instead', () => {
    const advice = { ...advise(judgement, 'air', 'english')!, drill: null };
    page = mount(createElement(AdviceCard, { advice, instrument: null, from: '/' }));
    page.tap(page.byId('serves'));
    expect(mockPlaces).toEqual([`/exercise/${advice.serves?.family}`]);
    expect(mockOnStand).toEqual([]);
  });
});
