import { instruments } from '@/core/instruments';
import { noFaults, randomFigure, type FaultRates, type TrueEvent } from '@/core/lab';
import type { NoteEvent } from '@/core/hearing/notes';
import { eventsIn } from '@/core/hearing/notes/playAndHear.testing';
import { hear, play, RATE } from './takes';

const KINDS = ['break', 'blip', 'squeak', 'undertone', 'gap', 'wrong-note', 'late-speech'] as const;

/** Same kind, near in time. */
function matches(truth: TrueEvent, heard: NoteEvent): boolean {
  const slack = 0.05;
  return (
    truth.kind === heard.kind &&
    heard.startSeconds < truth.endSeconds + slack &&
    heard.endSeconds > truth.startSeconds - slack
  );
}

interface Tally {
  truth: number;
  found: number;
  heard: number;
  right: number;
  timing: number[];
}

export function eventTable(seeds: number, only?: string[], verbose = false) {
  const tally = new Map<string, Tally>();
  const perInstrument: string[] = [];
  let notesTrue = 0,
    notesFound = 0,
    notesHeard = 0;
  const rates: FaultRates = { ...noFaults, break: 0.2, blip: 0.2, squeak: 0.2, undertone: 0.3, gap: 0.3 };
  for (const instrument of instruments) {
    if (only && !only.includes(instrument.id)) continue;
    const own = new Map<string, Tally>();
    let nt = 0,
      nf = 0,
      nh = 0;
    for (let seed = 1; seed <= seeds; seed++) {
      const performance = play(instrument, randomFigure(instrument, seed), seed, rates);
      const heard = hear(performance.audio, instrument);
      const told = eventsIn(heard, performance.notes);
      const used = new Set<NoteEvent>();
      const bump = (kind: string, what: 'truth' | 'found' | 'heard' | 'right') => {
        for (const map of [tally, own]) {
          const t = map.get(kind) ?? { truth: 0, found: 0, heard: 0, right: 0, timing: [] };
          t[what]++;
          map.set(kind, t);
        }
      };
      for (const truth of performance.events) {
        bump(truth.kind, 'truth');
        const hit = told.find((event) => !used.has(event) && matches(truth, event));
        if (hit) {
          used.add(hit);
          bump(truth.kind, 'found');
          tally
            .get(truth.kind)!
            .timing.push(
              Math.abs(hit.startSeconds - truth.startSeconds),
              Math.abs(hit.endSeconds - truth.endSeconds),
            );
        } else if (verbose)
          console.log(
            '  missed',
            instrument.id,
            seed,
            truth.kind,
            truth.startSeconds.toFixed(3),
            ((truth.endSeconds - truth.startSeconds) * 1000).toFixed(0) + 'ms',
            'midi',
            truth.soundingMidi,
            'note',
            performance.notes[truth.noteIndex]!.soundingMidi,
            performance.notes[truth.noteIndex]!.slurred,
            'previous',
            performance.notes[truth.noteIndex - 1]?.soundingMidi,
          );
      }
      for (const event of told) {
        bump(event.kind, 'heard');
        if (used.has(event)) bump(event.kind, 'right');
        else if (verbose)
          console.log(
            '  false',
            instrument.id,
            seed,
            event.kind,
            event.startSeconds.toFixed(3),
            ((event.endSeconds - event.startSeconds) * 1000).toFixed(0) + 'ms',
            event.soundingMidi,
            'note',
            event.noteIndex === null ? '' : heard.notes[event.noteIndex]?.soundingMidi,
          );
      }
      nt += performance.notes.length;
      nh += heard.notes.length;
      for (const note of performance.notes) {
        const hit = heard.notes.find(
          (h) => h.soundingMidi === note.soundingMidi && Math.abs(h.startSeconds - note.startSeconds) < 0.15,
        );
        if (hit) nf++;
        else if (verbose)
          console.log(
            '  note lost',
            instrument.id,
            seed,
            note.soundingMidi,
            note.startSeconds.toFixed(2),
            note.slurred,
            heard.notes
              .filter((h) => Math.abs(h.startSeconds - note.startSeconds) < 0.5)
              .map((h) => `${h.soundingMidi}@${h.startSeconds.toFixed(2)}`)
              .join(' '),
          );
      }
    }
    notesTrue += nt;
    notesFound += nf;
    notesHeard += nh;
    perInstrument.push(
      `${instrument.id.padEnd(20)} notes ${nf}/${nt} heard ${nh} ` +
        KINDS.map((kind) => {
          const t = own.get(kind);
          return t ? `${kind} ${t.found}/${t.truth} (${t.right}/${t.heard})` : '';
        }).join('  '),
    );
  }
  console.log(perInstrument.join('\n'));
  for (const kind of KINDS) {
    const t = tally.get(kind);
    if (t)
      console.log(
        kind.padEnd(12),
        'recall',
        (t.found / Math.max(1, t.truth)).toFixed(3),
        'precision',
        (t.right / Math.max(1, t.heard)).toFixed(3),
        'n',
        t.truth,
        'timing p90',
        ((t.timing.sort((a, b) => a - b)[Math.floor(t.timing.length * 0.9)] ?? NaN) * 1000).toFixed(0) + 'ms',
      );
  }
  console.log('notes', notesFound, '/', notesTrue, 'heard', notesHeard);
}

/** Events heard where nothing went wrong, per ten minutes of playing. */
export function falseEvents(seeds: number) {
  let events = 0;
  let seconds = 0;
  for (const instrument of instruments) {
    for (let seed = 1; seed <= seeds; seed++) {
      const { audio } = play(instrument, randomFigure(instrument, 500 + seed, 16), seed);
      events += hear(audio, instrument).events.length;
      seconds += audio.length / RATE;
    }
  }
  return { minutes: Math.round(seconds / 60), events, 'per 10 minutes': (600 * events) / seconds };
}
