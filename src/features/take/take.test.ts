/** @jest-environment node */
import { createElement, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { judge, limitsOf, type Drawing } from '@/core/verdict';
import { scoreOf } from '@/core/music';
import type { Note, NoteEvent } from '@/core/hearing/notes';
import { emptyTake } from '@/core/take/takes.testing';
import { CloseUp } from './CloseUp';
import { DrawingView } from './drawings/DrawingView';
import { Findings } from './Findings';
import { MARKS } from './marks';
import { NoteRow } from './NoteRow';

const words = (element: ReactElement) =>
  renderToStaticMarkup(element)
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ');
const labels = (element: ReactElement) =>
  [...renderToStaticMarkup(element).matchAll(/aria-label="([^"]*)"/g)].map(([, label]) => label ?? '');
const draw = (drawing: Drawing) => createElement(DrawingView, { drawing });

describe('the drawing of each family says in words what it shows', () => {
  it.each<[string, Drawing, RegExp]>([
    [
      'climb',
      {
        kind: 'climb',
        rows: [
          {
            fingered: 'C4',
            modes: [
              { mode: 2, name: 'C5', reached: true, cents: -7, ordinary: 3 },
              { mode: 3, name: 'G5', reached: false, cents: null, ordinary: null },
            ],
          },
        ],
      },
      /3: G5 not reached.*2: C5 7 low/,
    ],
    [
      'holds',
      { kind: 'holds', holds: [{ name: 'G4', pure: 6.2, length: 8, asked: 10 }] },
      /G4 6\.2 of 8\.0 s/,
    ],
    ['ladder', { kind: 'ladder', steps: [{ label: '4', offsets: [0.02, 0.04] }] }, /4 30 ms late/],
    ['leanings', { kind: 'leanings', notes: [{ name: 'A4', cents: -12 }] }, /A4 12 low/],
    [
      'intervals',
      { kind: 'intervals', notes: [{ name: 'fifth', interval: 'A4', cents: 4, beatHz: 1.25 }] },
      /fifth A4 4 high · 1\.3 Hz/,
    ],
    [
      'ways',
      {
        kind: 'ways',
        ways: [
          { name: 'slurred up', rise: null, levelDb: -20, brightness: 2, cents: 0, cleanSlurs: '3 of 4' },
        ],
      },
      /slurred up 3 of 4 clean/,
    ],
    [
      'window',
      { kind: 'window', notes: [{ name: 'D5', softDb: -40, loudDb: -18, softCents: 0, loudCents: 0 }] },
      /D5 22 dB/,
    ],
    [
      'sameness',
      {
        kind: 'sameness',
        reference: 'A4',
        notes: [{ name: 'F4', distance: 3, parts: [{ name: 'brightness', steps: -2 }] }],
      },
      /F4 darker/,
    ],
    [
      'anchor',
      { kind: 'anchor', name: 'E4', returns: [{ from: 'B5', cents: 9, levelDb: 0, distance: 1 }] },
      /from B5 9 high/,
    ],
    [
      'compared',
      {
        kind: 'compared',
        names: ['high', 'low'],
        rows: [
          { label: 'pitch', unit: 'cents', difference: 5, low: 2, high: 8, sure: true },
          { label: 'level', unit: 'dB', difference: 1, low: -1, high: 3, sure: false },
        ],
      },
      /pitch \+5\.0 cents/,
    ],
  ])('%s', (_kind, drawing, expected) => {
    expect(labels(draw(drawing)).join(' | ')).toMatch(expected);
  });

  it('sweep and scan tell their points', () => {
    const sweep: Drawing = {
      kind: 'sweep',
      name: 'A4',
      legs: [
        {
          way: 'up',
          points: [
            { levelDb: -10, cents: -5, ring: 9 },
            { levelDb: 0, cents: 5, ring: 12 },
          ],
        },
      ],
      ringDb: -4,
      tuneDb: null,
    };
    expect(labels(draw(sweep)).join()).toMatch(/rings 4 dB below the loudest, in tune nowhere/);
    const scan: Drawing = {
      kind: 'scan',
      notes: [
        { written: 60, name: 'C4', dynamic: 'p', cents: -8 },
        { written: 61, name: 'C♯4', dynamic: 'f', cents: 3 },
      ],
    };
    expect(labels(draw(scan)).join()).toMatch(/C4 p 8 low; C♯4 f 3 high/);
  });

  it('a comparison that is not sure claims nothing', () => {
    expect(
      words(
        draw({
          kind: 'compared',
          names: ['a', 'b'],
          rows: [{ label: 'air', unit: 'dB', difference: 9, low: -1, high: 20, sure: false }],
        }),
      ),
    ).toMatch(/air no difference/);
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
const take = emptyTake({ score, notes: [note(0, 64), note(0.95, 76)], events: [gap] });
const judgement = judge(take, limitsOf('steady'));

describe('the strip', () => {
  const row = (index: number) =>
    createElement(NoteRow, {
      judged: judgement.notes[index]!,
      note: take.notes[index] ?? null,
      seam: judgement.seams.find((seam) => seam.to.index === index) ?? null,
      trace: take.trace,
      open: false,
      onPress: () => undefined,
    });

  it('names what happened by shape and word, for the eye and for the ear', () => {
    expect(labels(row(1))[0]).toMatch(/^E5, 8 low, steady, hole, a hole of 60 ms$/);
    expect(words(row(1))).toMatch(/hole slur: a hole of 60 ms/);
    expect(renderToStaticMarkup(row(1))).toContain(MARKS.gap);
  });

  it('says what was not heard', () => {
    expect(labels(row(2))[0]).toMatch(/^E4, not heard/);
  });

  it('has a shape of its own for every kind of event', () => {
    expect(new Set(Object.values(MARKS)).size).toBe(Object.keys(MARKS).length);
  });

  it('tells a place from near in sentences with their units', () => {
    const closeUp = createElement(CloseUp, {
      judged: judgement.notes[1]!,
      note: take.notes[1]!,
      seam: judgement.seams[0]!,
      reference: { name: 'E4', note: take.notes[0]! },
      trace: take.trace,
      children: null,
    });
    expect(words(closeUp)).toMatch(/E5 lasted 0\.9 s and sat 8 low, wobble 2\.0 cents/);
    expect(words(closeUp)).toMatch(/The slur into it was not clean: a hole of 60 ms/);
    expect(words(closeUp)).toMatch(/Partials 1 to 16 of E5; marks: of E4/);
  });
});

test('a figure that is not known is told with its reason and without a number', () => {
  const findings = createElement(Findings, {
    findings: [
      { id: 'x', label: 'Air', value: null, unit: 'dB', sentence: 'Not known: too noisy.', meaning: 'm' },
    ],
  });
  expect(words(findings)).toMatch(/Air Not known: too noisy\./);
  expect(renderToStaticMarkup(findings)).not.toContain('value-x');
});
