import type { NoteEvent } from '@/core/hearing/notes';
import type { Match } from '@/core/hearing/matching';
import type { Fault, FaultKind } from './fault';
import type { Part } from './part';
import { eventsOf, nameOf, scoreNoteOf, type Reading } from './reading';
import { isHigher } from './seams';
import type { Finding } from './verdict';
import { listed, plural } from './words';

/** What an event is called in words, short enough to stand beside its mark. */
export function eventWord(event: NoteEvent, soundingMidi: number): string {
  const up = isHigher(event, soundingMidi);
  switch (event.kind) {
    case 'break':
      return up ? 'broke up' : 'broke down';
    case 'blip':
      return up ? 'high blip' : 'low blip';
    case 'gap':
      return 'hole';
    case 'late-speech':
      return 'spoke late';
    case 'wrong-note':
      return 'wrong note';
    case 'vibrato-unwanted':
      return 'vibrato';
    default:
      return event.kind;
  }
}

/** Faults that events are, at slurs excepted: those belong to the seams. */
const FAULT_OF: Readonly<Record<NoteEvent['kind'], readonly [up: FaultKind, down: FaultKind] | null>> = {
  break: ['break-up', 'break-down'],
  blip: ['break-up', 'break-down'],
  squeak: ['squeak', 'squeak'],
  undertone: ['undertone', 'undertone'],
  gap: ['hole', 'hole'],
  'late-speech': ['late-speech', 'late-speech'],
  'wrong-note': ['wrong-note', 'wrong-note'],
  // Told by the measure of steadiness, which knows how wide it was.
  'vibrato-unwanted': null,
};

const isAtSlur = (reading: Reading, match: Match, event: NoteEvent) =>
  match.group.slurred &&
  event.startSeconds - reading.notes[match.parts[0]!]!.startSeconds < 0.3 &&
  event.kind !== 'undertone';

/** What happened, whatever the family: events, notes that were missed or were others. */
export function happenings(reading: Reading): Part {
  const { alignment, notes, score } = reading;
  const { matches } = alignment;
  const faults: Fault[] = [];
  const told: { word: string; name: string }[] = [];
  for (const match of matches) {
    if (match.note === null) continue;
    const { dynamic } = scoreNoteOf(reading, match.group);
    for (const event of eventsOf(reading, match)) {
      const kinds = FAULT_OF[event.kind];
      if (!kinds || !score.counts.events.includes(event.kind)) continue;
      const { soundingMidi } = notes[match.note]!;
      told.push({ word: eventWord(event, soundingMidi), name: nameOf(match.group) });
      if (isAtSlur(reading, match, event)) continue;
      const kind = kinds[isHigher(event, soundingMidi) ? 0 : 1];
      faults.push({
        kind,
        group: match.group.index,
        atSlur: false,
        size: 2,
        confidence: event.confidence,
        dynamic,
      });
    }
    if (match.state === 'wrong' || match.state === 'mode')
      faults.push({
        kind:
          match.state === 'wrong'
            ? 'wrong-note'
            : notes[match.note]!.soundingMidi > match.group.sounding
              ? 'break-up'
              : 'break-down',
        group: match.group.index,
        atSlur: match.group.slurred,
        size: match.state === 'wrong' ? 1.5 : 3,
        confidence: 0.8,
        dynamic,
      });
  }
  const missed = matches.filter((match) => match.state === 'missed');
  const wrong = matches.filter((match) => match.state === 'wrong' || match.state === 'mode');
  for (const match of missed)
    faults.push({
      kind: 'missed',
      group: match.group.index,
      atSlur: match.group.slurred,
      size: 1.2,
      confidence: 0.6,
      dynamic: scoreNoteOf(reading, match.group).dynamic,
    });
  return {
    findings: [...playedFinding(reading, missed, wrong), ...eventFindings(told)],
    faults,
    ...(told.length > 0 && {
      headline: {
        text: eventHeadline(told),
        weight: 1.4 + Math.min(1, (4 * told.length) / matches.length),
      },
    }),
    ...(missed.length > matches.length / 2 && {
      headline: { text: `${matches.length - missed.length} of ${matches.length} notes heard`, weight: 3 },
    }),
  };
}

function eventHeadline(told: readonly { word: string; name: string }[]): string {
  const counts = countsOf(told.map(({ word }) => word));
  const [word, count] = counts[0]!;
  if (told.length === 1) return `${told[0]!.name}: ${word}`;
  return `${word.replace(/^./, (c) => c.toUpperCase())}${count > 1 ? ` ${count} times` : ''}${counts.length > 1 ? `, ${told.length - count} other ${told.length - count === 1 ? 'thing' : 'things'}` : ''}`;
}

function countsOf(words: readonly string[]): [string, number][] {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]);
}

function eventFindings(told: readonly { word: string; name: string }[]): Finding[] {
  if (told.length === 0) return [];
  const sentence = countsOf(told.map(({ word }) => word))
    .map(([word, count]) => {
      const places = told.filter((each) => each.word === word).map((each) => each.name);
      return `${word}${count > 1 ? ` ${count} times` : ''} (${listed(places)})`;
    })
    .join('; ');
  return [
    {
      id: 'events',
      label: 'What happened',
      value: String(told.length),
      unit: told.length === 1 ? 'event' : 'events',
      sentence: `${sentence.replace(/^./, (c) => c.toUpperCase())}.`,
      meaning:
        'Sounds that were not asked for: other modes, squeaks, undertones, holes, late beginnings. The strip shows where.',
    },
  ];
}

function playedFinding({ alignment }: Reading, missed: readonly Match[], wrong: readonly Match[]): Finding[] {
  const { matches, returns, extras } = alignment;
  if (matches.length < 2) return [];
  const parts = [
    missed.length > 0
      ? `${plural(missed.length, 'note')} not heard (${listed(missed.map((m) => nameOf(m.group)))})`
      : null,
    wrong.length > 0
      ? `${plural(wrong.length, 'note')} came as another (${listed(wrong.map((m) => nameOf(m.group)))})`
      : null,
    returns > 0 ? `gone back ${returns === 1 ? 'once' : `${returns} times`}; the last playing counts` : null,
    extras.length > 0 && returns === 0 ? `${plural(extras.length, 'sound')} besides` : null,
  ].filter((part) => part !== null);
  const right = matches.length - missed.length - wrong.length;
  return [
    {
      id: 'notes',
      label: 'Notes',
      value: `${right} of ${matches.length}`,
      unit: 'as written',
      sentence:
        parts.length === 0
          ? 'All of it was played.'
          : `${parts.join('; ').replace(/^./, (c) => c.toUpperCase())}.`,
      meaning:
        'What was heard is laid beside the music; skipped, repeated, added and wrong notes are told apart by the best fit of the whole.',
    },
  ];
}
