import { median, robustSlopeOver, type Seconds } from '@/core/base';
import { glideOf, type Score } from '@/core/music';
import { areModesApart, type Instrument } from '@/core/instruments';
import { lengthOf, type Note } from '@/core/hearing/notes';
import { Aligner, SAME, type Role, type Sounded } from './aligner';
import { groupsOf, type Group } from './groups';

/** What became of one note of the score. */
export interface Match {
  readonly group: Group;
  /** Index of the heard note that stands for it; null when it was not heard. */
  readonly note: number | null;
  /** All heard notes of its last playing, in order: more than one where it was interrupted. */
  readonly parts: readonly number[];
  /**
   * `played` as asked, `wrong` by a finger, in another `mode` of the tube, `missed` where it was due, or `unplayed`: the player
   * had stopped before. Of what the room hides it is not known: `blurred` into the same note beside it, or `hidden` in its noise.
   */
  readonly state: 'played' | 'wrong' | 'mode' | 'missed' | 'blurred' | 'hidden' | 'unplayed';
  /** How many times it was begun. */
  readonly times: number;
}

export interface Alignment {
  readonly groups: readonly Group[];
  /** One for each group, in order. */
  readonly matches: readonly Match[];
  /** Indices of heard notes in the music that belong to nothing. */
  readonly extras: readonly number[];
  /** How often the player went back. */
  readonly returns: number;
}

/** When each beat fell, as far as it is known: from the metronome, loudspeaker and microphone taken into account. */
export interface Beats {
  /** Take time of a beat of the music; null in free time. */
  readonly secondsOf: ((beat: number) => Seconds) | null;
  readonly beatSeconds: Seconds;
  /**
   * What begins and ends within one of these is not the music: before its first beat (a note that started the count-in), or from
   * where it was broken off until it was gone on with, what was played again later included.
   */
  readonly notMusic: readonly { readonly from: Seconds; readonly to: Seconds }[];
}

/** Up to this far, in semitones, it is the neighbour's fingering. */
export const NEIGHBOUR = 2;
const JOINED: Seconds = 0.05;

/** So many notes, so far apart in seconds, tell a tempo of one's own; so much of it is one, and no more. */
const LEAST_FOR_TEMPO = 6;
const TEMPO_STEP: Seconds = 2;
const OWN_TEMPO = 0.015;
const MOST_OWN_TEMPO = 0.2;

/** So many notes at the end that were not heard were not tried. */
const STOPPED_NOTES = 3;

/** Puts what was heard beside what was written. @param end when listening ended. */
export function align(
  score: Score,
  instrument: Instrument,
  notes: readonly Note[],
  beats: Beats,
  end: Seconds = Infinity,
): Alignment {
  const groups = groupsOf(score, instrument);
  if (groups.length === 0) return { groups, matches: [], extras: notes.map((_, i) => i), returns: 0 };
  const { secondsOf } = beats;
  const isMusic = ({ startSeconds, endSeconds }: Note): boolean =>
    !beats.notMusic.some(({ from, to }) => startSeconds >= from && endSeconds <= to);
  const used = notes.flatMap((note, i) => (isMusic(note) ? [i] : []));
  const heard = used.map((i) => soundedOf(notes, i));
  const bending = score.notes.some(({ role }) => glideOf(role) !== null);
  const rolesBy = (expected: ((group: Group) => Seconds) | null): Role[] => {
    const aligner = new Aligner({ groups, instrument, expected, beatSeconds: beats.beatSeconds, bending });
    for (const note of heard) aligner.push(note);
    return aligner.roles();
  };
  const onBeat = secondsOf && ((group: Group) => secondsOf(group.startBeat));
  const strict = rolesBy(onBeat);
  const run = onBeat && ownTempo(groups, onBeat, heard, strict);
  const roles = run ? rolesBy((group) => run(onBeat(group))) : strict;
  const parts = groups.map((): number[] => []);
  const times = groups.map(() => 0);
  const extras: number[] = [];
  let returns = 0;
  roles.forEach((role, k) => {
    const i = used[k]!;
    if (role.kind === 'extra') extras.push(i);
    else if (role.kind === 'rest-of-note') parts[role.group]!.push(i);
    else {
      times[role.group]!++;
      if (role.again) returns++;
      // Of several playings the last one stands.
      extras.push(...parts[role.group]!);
      parts[role.group] = [i];
    }
  });
  const matches = groups.map((group, j): Match => {
    const all = parts[j]!;
    const note = all.length > 0 ? standFor(notes, all, group) : null;
    return { group, note, parts: all, times: times[j]!, state: stateOf(notes, note, group, instrument) };
  });
  const played = matches.findLastIndex(({ note }) => note !== null);
  const stopped = played >= 0 && isStopped(groups.slice(played + 1), beats, end);
  return {
    groups,
    matches: stopped
      ? matches.map((match, i) => (i > played ? { ...match, state: 'unplayed' as const } : match))
      : matches,
    extras: extras.sort((a, b) => a - b),
    returns,
  };
}

/**
 * The time of who ran or dragged away from the beat little by little, from the notes before matching first stumbled: repeated
 * notes would otherwise be taken for their neighbours as soon as they are half a note off. Null where the beat was kept, or too
 * little was heard to tell.
 */
function ownTempo(
  groups: readonly Group[],
  onBeat: (group: Group) => Seconds,
  heard: readonly Sounded[],
  roles: readonly Role[],
): ((due: Seconds) => Seconds) | null {
  const stumble = roles.findIndex((role, k) => role.kind !== 'note' || role.group !== k);
  // Every note in its place: nothing is to be mended.
  if (stumble < 0) return null;
  const pairs = roles
    .slice(0, stumble)
    .map((_, k) => ({ due: onBeat(groups[k]!), at: heard[k]!.startSeconds }));
  if (pairs.length < LEAST_FOR_TEMPO) return null;
  const due = pairs.map((pair) => pair.due);
  const late = pairs.map((pair) => pair.at - pair.due);
  const slope = robustSlopeOver(due, late, TEMPO_STEP);
  if (!(Math.abs(slope) > OWN_TEMPO && Math.abs(slope) < MOST_OWN_TEMPO)) return null;
  const start = median(late.map((each, i) => each - slope * due[i]!));
  return (beat) => start + (1 + slope) * beat;
}

/** Whether what is left at the end was not tried: in free time always, by the beat when listening ended or many are left. */
function isStopped(
  [first, ...more]: readonly Group[],
  { secondsOf, beatSeconds }: Beats,
  end: Seconds,
): boolean {
  if (!first) return false;
  if (!secondsOf || more.length + 1 >= STOPPED_NOTES) return true;
  return end < secondsOf(first.startBeat) + Math.min(beatSeconds, first.beats * beatSeconds) / 2;
}

function soundedOf(notes: readonly Note[], i: number): Sounded {
  const { startSeconds, endSeconds, soundingMidi } = notes[i]!;
  const before = notes[i - 1];
  return {
    startSeconds,
    midi: soundingMidi,
    seconds: endSeconds - startSeconds,
    joined: before !== undefined && startSeconds - before.endSeconds < JOINED,
  };
}

/** Of the parts of a note the longest with the asked pitch, or else the longest. */
function standFor(notes: readonly Note[], parts: readonly number[], group: Group): number {
  const right = parts.filter((i) => Math.abs(notes[i]!.soundingMidi - group.sounding) < SAME);
  return (right.length > 0 ? right : parts).reduce((a, b) =>
    lengthOf(notes[b]!) > lengthOf(notes[a]!) ? b : a,
  );
}

function stateOf(
  notes: readonly Note[],
  note: number | null,
  group: Group,
  instrument: Instrument,
): Match['state'] {
  if (note === null) return 'missed';
  const away = notes[note]!.soundingMidi - group.sounding;
  if (Math.abs(away) < SAME) return 'played';
  if (Math.abs(away) <= NEIGHBOUR) return 'wrong';
  return areModesApart(instrument, away) ? 'mode' : 'wrong';
}
