import { capital, type Seconds } from '@/core/base';
import type { Match } from '@/core/hearing/matching';
import type { NoteEvent } from '@/core/hearing/notes';
import { cutShortTo, spanOf, stoppedFor } from '../account';
import { amountOf, faultAt } from '../beyond';
import type { Amount, Fault } from '../fault';
import { faultOfEvent, FAULTS, NOT_WHOLE } from '../faults';
import { figure, figuresAt, isKnown, wholeOf, type Figure } from '../figure';
import { numbers, type Measure, type Speaking } from '../measure';
import { eventsOf, scoreNoteOf, type Reading } from '../reading';
import { listed, plural, tallied } from '../words';
import { ARRIVAL_SECONDS } from './slurs';

/** An event at its note, and whether it belongs to the slur into it. */
interface Happening {
  readonly event: NoteEvent;
  readonly match: Match;
  readonly fault: Fault['kind'];
  readonly atSlur: boolean;
}

/** Whether what sounded lay above the note that was played. */
export const isAbove = (event: NoteEvent, soundingMidi: number): boolean =>
  (event.soundingMidi ?? soundingMidi) > soundingMidi;

/** What happened besides what was asked, as far as the score counts it. */
export function happeningsIn(reading: Reading): Happening[] {
  const { alignment, notes, score, limits } = reading;
  return alignment.matches.flatMap((match) => {
    if (match.note === null) return [];
    const first = notes[match.parts[0]!]!;
    return eventsOf(reading, match).flatMap((event): Happening[] => {
      const fault = faultOfEvent(event.kind, isAbove(event, notes[match.note!]!.soundingMidi));
      if (fault === null || !score.counts.events.includes(event.kind)) return [];
      // A tongued note stops before it begins; a hole is one only where a slur was asked for.
      if (event.kind === 'gap' && !match.group.slurred) return [];
      if (event.kind === 'late-speech' && lasted(event) <= limits.speechMs) return [];
      const atSlur =
        match.group.slurred &&
        event.startSeconds - first.startSeconds < ARRIVAL_SECONDS &&
        event.kind !== 'undertone';
      return [{ event, match, fault, atSlur }];
    });
  });
}

const lasted = ({ startSeconds, endSeconds }: NoteEvent): number => 1000 * (endSeconds - startSeconds);

/** So long a note has a time of its own: when in it something happened is told. */
const HAS_TIME: Seconds = 3;

/** When in a long note it happened; null in a short one, where the place says enough. */
function since(reading: Reading, match: Match, event: NoteEvent): Amount | null {
  const span = spanOf(reading, match);
  if (span === null || span.to - span.from < HAS_TIME) return null;
  const seconds = event.startSeconds - span.from;
  return seconds < ARRIVAL_SECONDS ? null : { figure: 'after', value: seconds, limit: null };
}

/** Groups that were played, and not whole. */
const brokenIn = (faults: readonly Pick<Fault, 'kind' | 'group'>[]): ReadonlySet<number> =>
  new Set(faults.flatMap(({ kind, group }) => (group !== null && NOT_WHOLE.includes(kind) ? [group] : [])));

const counted = (matches: readonly Match[]) =>
  matches.filter(({ state }) => state !== 'unplayed' && state !== 'blurred' && state !== 'hidden');

/** Notes that did not last: how long they were silent within, and when they ended. */
function lastingFigures(reading: Reading): Figure[] {
  const { matches } = reading.alignment;
  if (reading.score.counts.exploring || reading.score.free) return [];
  return matches.flatMap((match): Figure[] => {
    const at = { at: match.group.index };
    const [stopped, lasted] = [stoppedFor(reading, match), cutShortTo(reading, match)];
    return [
      ...(stopped !== null && stopped > 0 ? [figure('stopped', stopped, at)] : []),
      ...(lasted === null ? [] : [figure('cut-short', lasted, at)]),
    ];
  });
}

/** Faults that are no figures: what happened at a place, notes that were missed or were others. */
export function faultsOfHappenings(reading: Reading, figures: readonly Figure[]): Fault[] {
  const { matches } = reading.alignment;
  const judging = { score: reading.score, matches };
  const climbing = reading.score.counts.measures.includes('climb');
  return [
    ...(['stopped', 'cut-short'] as const).flatMap((kind) =>
      figuresAt(figures, kind).map((each) => faultAt(judging, each.at, kind, 2, amountOf(each, null))),
    ),
    ...happeningsIn(reading).map(({ event, match, fault, atSlur }) =>
      faultAt(
        judging,
        match.group.index,
        fault,
        event.kind === 'gap' ? 2.2 : 2.5,
        event.kind === 'late-speech'
          ? { figure: 'speech', value: lasted(event), limit: reading.limits.speechMs }
          : since(reading, match, event),
        { atSlur, confidence: event.confidence },
      ),
    ),
    ...matches.flatMap((match): Fault[] => {
      const { group, state, note } = match;
      // Modes that are climbed to are told by the climb.
      if (climbing && scoreNoteOf(reading, group).fingered !== null) return [];
      const at = { atSlur: group.slurred };
      if (state === 'wrong') return [faultAt(judging, group.index, 'wrong-note', 1.5, null, at)];
      if (state === 'missed')
        return [faultAt(judging, group.index, 'missed', 1.2, null, { ...at, confidence: 0.6 })];
      if (state !== 'mode' || note === null) return [];
      const up = reading.notes[note]!.soundingMidi > group.sounding;
      return [faultAt(judging, group.index, up ? 'break-up' : 'break-down', 3, null, at)];
    }),
  ];
}

/** What was played of what is written, and what happened besides: told of every take. */
export const happenings: Measure = {
  measure(reading) {
    const { matches } = reading.alignment;
    const all = counted(matches);
    const told = happeningsIn(reading);
    const lasting = lastingFigures(reading);
    const broken = brokenIn([
      ...told.map(({ fault, match }) => ({ kind: fault, group: match.group.index })),
      ...lasting.map(({ at }) => ({ kind: 'stopped' as const, group: at })),
    ]);
    const right = all.filter(({ state, group }) => state === 'played' && !broken.has(group.index));
    const groups = all.map(({ group }) => group.index);
    return numbers([
      ...lasting,
      ...(matches.length > 1 && !reading.score.free
        ? [figure('notes-played', right.length, { groups, n: all.length, of: all.length })]
        : []),
      ...told.flatMap(({ event, match }): Figure[] =>
        event.kind === 'late-speech' ? [figure('speech', lasted(event), { at: match.group.index })] : [],
      ),
      ...(told.length > 0
        ? [
            figure('events', told.length, {
              groups: told.map(({ match }) => match.group.index),
              n: told.length,
            }),
          ]
        : []),
    ]);
  },
  say(figures, speaking) {
    const events = wholeOf(figures, 'events');
    return {
      lines: {
        ...(isKnown(wholeOf(figures, 'notes-played')) && { 'notes-played': playedText(speaking) }),
        ...(isKnown(events) && { events: happenedText(speaking, events.groups) }),
      },
    };
  },
};

/** What was played of what is written, in a sentence or two. */
export function playedText({ score, matches, faults, nameAt }: Speaking): string {
  if (score.free) return `${plural(matches.length, 'note')} heard.`;
  const of = (state: Match['state']) => matches.filter((match) => match.state === state);
  const namesOf = (all: readonly Match[]) => all.map(({ group }) => nameAt(group.index));
  const names = (all: readonly Match[]) => listed(namesOf(all));
  const counts = (all: readonly Match[]) => tallied(namesOf(all));
  const wrong = [...of('wrong'), ...of('mode')];
  const inParts = brokenIn(faults);
  const broken = of('played').filter(({ group }) => inParts.has(group.index));
  const stopped = of('unplayed').length;
  const played = matches.length - stopped;
  const parts = [
    of('missed').length > 0
      ? `${plural(of('missed').length, 'note')} not heard (${counts(of('missed'))})`
      : null,
    wrong.length > 0
      ? `${plural(wrong.length, 'note')} came as ${wrong.length === 1 ? 'another' : 'others'} (${counts(wrong)})`
      : null,
    broken.length > 0
      ? `${broken.length} of ${plural(matches.length, 'note')} did not hold through (${counts(broken)})`
      : null,
  ].filter((part) => part !== null);
  const [blurred, hidden] = [of('blurred'), of('hidden')];
  const open = [
    blurred.length > 0
      ? ` In this room ${plural(blurred.length, 'note')} (${counts(blurred)}) could not be told from the same note beside ${blurred.length === 1 ? 'it' : 'them'}.`
      : '',
    hidden.length > 0
      ? ` How ${names(hidden)} sounded is not known: the noise of the room is as loud as your soft notes.`
      : '',
  ].join('');
  const unknown = blurred.length + hidden.length;
  const ending =
    stopped > 0
      ? ` The last ${plural(stopped, 'note')} of ${matches.length} ${stopped === 1 ? 'was' : 'were'} not played.`
      : '';
  const tail = `${open}${ending}`;
  if (parts.length > 0) return `${capital(parts.join('; '))}.${tail}`;
  return stopped > 0
    ? `${played - unknown === 1 ? 'One note was' : `${played - unknown} notes were`} played as written.${tail}`
    : unknown > 0
      ? `${played - unknown} of ${matches.length} notes were heard as written.${open}`
      : matches.length === 1
        ? 'The note was played as written.'
        : `${matches.length === 2 ? 'Both' : `All ${matches.length}`} notes were played as written.`;
}

/** @param groups where something happened: a slur can be a hole by its level too, without anything having been heard in it. */
function happenedText({ faults, nameAt, slurAt }: Speaking, groups: readonly number[]): string {
  const kinds = new Map<Fault['kind'], Fault[]>();
  for (const fault of faults)
    if (fault.group !== null && groups.includes(fault.group) && 'events' in FAULTS[fault.kind])
      kinds.set(fault.kind, [...(kinds.get(fault.kind) ?? []), fault]);
  const said = [...kinds].map(([kind, all]) => {
    const places = all.map(({ group, atSlur }) => (atSlur ? slurAt(group!) : nameAt(group!)));
    const where = new Set(places).size === 1 ? places[0] : tallied(places);
    return `${FAULTS[kind].word}${all.length > 1 ? ` ${all.length} times` : ''} (${where})`;
  });
  return `${capital(said.join('; '))}.`;
}
