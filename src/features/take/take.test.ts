/** @jest-environment node */
import { createElement, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { findInstrument } from '@/core/instruments';
import { judge, limitsOf, say, type Chart } from '@/core/verdict';
import { ChartView } from '@/ui/charts';
import { scoreOf } from '@/core/music';
import type { Note, NoteEvent } from '@/core/hearing/notes';
import { emptyTake } from '@/core/take/takes.testing';
import { CloseUp } from './CloseUp';
import { Findings } from './Findings';
import { MARKS } from './marks';
import { NoteRow } from './NoteRow';

const words = (element: ReactElement) =>
  renderToStaticMarkup(element)
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ');
const labels = (element: ReactElement) =>
  [...renderToStaticMarkup(element).matchAll(/aria-label="([^"]*)"/g)].map(([, label]) => label ?? '');
const draw = (chart: Chart) => createElement(ChartView, { chart });

describe('a chart says in words what it shows', () => {
  it('rows: name, place and words; what is not known is in words only', () => {
    const chart: Chart = {
      kind: 'rows',
      title: 'Modes of C4',
      form: 'deviations',
      reach: 20,
      sides: ['low', 'high'],
      rows: [
        { name: '2: C5', value: -7, text: '7 cents low' },
        { name: '3: G5', value: null, text: 'not reached' },
      ],
    };
    expect(labels(draw(chart)).join(' | ')).toMatch(/Modes of C4: 2: C5 7 cents low; 3: G5 not reached/);
    expect(words(draw(chart))).toMatch(/low high/);
  });

  it('curves: what goes against what, in which units, and what each line is without its colour', () => {
    const chart: Chart = {
      kind: 'curves',
      title: 'A4: level against the line',
      x: { label: 'time', unit: 's' },
      y: { label: 'level', unit: 'dBFS' },
      lines: [
        { name: 'asked', style: 'asked', points: [{ x: 0, y: -20 }] },
        { name: 'played', style: 'played', points: [{ x: 4, y: -40 }] },
      ],
      marks: [],
    };
    expect(words(draw(chart))).toMatch(
      /Played in ink; asked in gold, dashed\. Across: time, 0 to 4 s\. Up: level, dBFS\./,
    );
  });

  it('a table has its columns named and its rows too', () => {
    const chart: Chart = {
      kind: 'table',
      title: 'The ways beside each other',
      columns: ['rise', 'clean slurs'],
      rows: [{ name: 'slurred up', cells: ['–', '3 of 4'] }],
    };
    expect(words(draw(chart))).toMatch(/rise clean slurs slurred up – 3 of 4/);
    expect(renderToStaticMarkup(draw(chart))).toContain('role="columnheader"');
  });
});

const note = (startSeconds: number, soundingMidi: number): Note =>
  ({
    startSeconds,
    endSeconds: startSeconds + 0.9,
    soundingMidi,
    centreCents: -8,
    wobbleCents: 2,
    driftCentsPerSecond: 0,
    levelDb: -20,
    levelDriftDbPerSecond: 0,
    vibrato: null,
    brightness: 2,
    richness: 8,
    airinessDb: -30,
    oddEvenDb: 2,
    partialsDb: [-20, -26, -30],
    puritySeconds: null,
    attack: { riseSeconds: 0.03, scoopCents: 0, speechSeconds: 0 },
    unknown: {},
  }) as unknown as Note;

const gap: NoteEvent = {
  kind: 'gap',
  startSeconds: 0.93,
  endSeconds: 0.99,
  soundingMidi: null,
  noteIndex: 1,
  confidence: 0.8,
};
const score = scoreOf({
  family: 'octave-slurs',
  title: 'Octave slurs',
  instrumentId: 'flute',
  tempo: 60,
  beatsPerBar: 4,
  countInBeats: 4,
  vibrato: 'none',
  notes: [
    { written: 64, startBeat: 0, beats: 1, attack: 'tongued', dynamic: 'mf' },
    { written: 76, startBeat: 1, beats: 1, attack: 'none', dynamic: 'mf' },
    { written: 64, startBeat: 2, beats: 1, attack: 'none', dynamic: 'mf' },
  ],
});
const take = emptyTake({
  durationSeconds: 2.5,
  score,
  instrument: findInstrument('flute')!,
  notes: [note(0, 64), note(0.95, 76)],
  events: [gap],
});
const judgement = judge(take, limitsOf('steady'));
const verdict = say(judgement, 'english');

describe('the strip', () => {
  const row = (index: number) =>
    createElement(NoteRow, {
      judged: judgement.notes[index]!,
      words: verdict.notes[index]!,
      note: take.notes[index] ?? null,
      span: take.notes[index] ?? null,
      trace: take.trace,
      open: false,
      onPress: () => undefined,
    });

  it('names what happened by shape and word, for the eye and for the ear', () => {
    expect(words(row(1))).toMatch(/hole E5/);
    expect(words(row(1))).toMatch(/8 cents low\s+steady/);
    expect(renderToStaticMarkup(row(1))).toContain(MARKS.gap);
  });

  it('says what was not heard', () => {
    expect(words(row(2))).toMatch(/E4\s+not played/);
  });

  it('has a shape of its own for every kind of event', () => {
    expect(new Set(Object.values(MARKS)).size).toBe(Object.keys(MARKS).length);
  });

  it('tells a place from near in sentences with their units', () => {
    const closeUp = createElement(CloseUp, {
      judged: judgement.notes[1]!,
      words: verdict.notes[1]!,
      note: take.notes[1]!,
      seam: judgement.seams[0]!,
      reference: { name: 'E4', note: take.notes[0]! },
      trace: take.trace,
      children: null,
    });
    expect(words(closeUp)).toMatch(/E5 lasted 0\.9 s and sat 8 cents low, wobble 2\.0 cents/);
    expect(words(closeUp)).toMatch(/The slur into it was not clean: hole/);
    expect(words(closeUp)).toMatch(/Partials 1 to 16 of E5; marks: of E4/);
  });
});

test('a figure that is not known is told with its reason and without a number', () => {
  const findings = createElement(Findings, {
    findings: [
      {
        id: 'air',
        label: 'Air',
        value: null,
        unit: '',
        sentence: 'Not known: too noisy.',
        meaning: 'm',
        groups: [],
      },
    ],
  });
  expect(words(findings)).toMatch(/Air Not known: too noisy\./);
  expect(renderToStaticMarkup(findings)).not.toContain('value-air');
});
