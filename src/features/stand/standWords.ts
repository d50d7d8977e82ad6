import type { Midi } from '@/core/base';
import {
  askedWord,
  offWord,
  tellsFading,
  type HeardNow,
  type LiveRemark,
  type LiveWord,
  type Place,
} from '@/core/hearing/following';
import type { Group } from '@/core/hearing/matching';
import { leaning } from '@/core/tuning';
import { pulseAt, secondsAt, type Picture, type Score } from '@/core/music';
import { fixed, sized } from '@/core/verdict';

/** What the big word depends on. */
export interface Moment {
  readonly score: Score;
  readonly groups: readonly Group[];
  /** Beat of the music; null in free time. */
  readonly beat: number | null;
  /** Beat that this stretch begins with: before it is the count-in. */
  readonly fromBeat: number;
  readonly place: Place;
  readonly hidden: boolean;
  readonly byBeat: boolean;
  /** What the sound itself gives reason to say. */
  readonly live: LiveRemark;
}

/** One word at a time, and a line under it: what is asked now, or what to change. */
export function wordNow(moment: Moment): LiveWord {
  const { score, groups, beat, fromBeat, place, hidden, byBeat, live } = moment;
  if (beat !== null && beat < fromBeat) return countIn(score, beat);
  const picture = beat === null ? undefined : pictureAt(score, beat);
  if (picture) return pictureWord(picture, score.notes.length > 0);
  if (score.notes.length === 0) return { word: '', hint: '' };
  if (place.resting && (place.group > 0 || byBeat))
    return place.group > 0
      ? { word: 'breathe', hint: 'then go on' }
      : { word: 'ready', hint: 'the note comes soon' };
  if (hidden) return { word: '·', hint: 'the reading is hidden' };
  const group = groups[place.group];
  const asked = group ? askedWord(score, group, placeIn(score, group, place)) : null;
  const hint = score.cue ?? (score.counts.exploring ? 'listen to what changes' : 'just so');
  if (live.kind === 'silent')
    return byBeat
      ? { word: asked ?? 'play', hint: 'now' }
      : { word: asked ?? 'play', hint: 'when you are ready' };
  // Who explores is told what is asked, not what to change.
  if (score.counts.exploring) return { word: asked ?? 'listen', hint };
  if (live.kind === 'another')
    return { word: live.high ? 'too high' : 'too low', hint: 'another note is sounding' };
  if (live.kind === 'off')
    return { ...offWord(live.cents), hint: asked === null ? 'cents' : `cents · ${asked}` };
  if (live.kind === 'fading' && tellsFading(score, asked))
    return { word: 'fading', hint: 'keep the air going' };
  return { word: asked ?? 'hold', hint };
}

/** Where nothing is asked: the note, and where and how it lies. */
export function freeWord(heard: HeardNow | null, nameOf: (sounding: Midi) => string): LiveWord {
  if (!heard) return { word: '·', hint: 'play what you like' };
  const parts = [
    leaning(heard.cents),
    heard.wobble === null ? null : `steady within ${sized(Math.max(1, heard.wobble), 'cents')}`,
    `${fixed(heard.levelDb, 0)} dB`,
  ];
  return { word: nameOf(heard.sounding), hint: parts.filter(Boolean).join(' · ') };
}

/** One bar, as musicians count it: 1 2 3 4. @param beat before the music, negative. */
const countIn = (score: Score, beat: number): LiveWord => ({
  word: String(pulseAt(score, beat).number),
  hint: 'counting in',
});

const pictureAt = ({ pictures }: Score, beat: number): Picture | undefined =>
  pictures.find((each) => beat >= each.startBeat && beat < each.startBeat + each.beats);

/** Where an instrument is held, a rest is a silence that is listened to. */
const pictureWord = ({ shape, text }: Picture, withNotes: boolean): LiveWord => ({
  word: shape === 'rest' && withNotes ? 'silence' : shape,
  hint: text,
});

function placeIn(score: Score, group: Group, { musicSeconds }: Place): number {
  const from = secondsAt(score, group.startBeat);
  const length = secondsAt(score, group.startBeat + group.beats) - from;
  return length > 0 ? Math.min(1, Math.max(0, (musicSeconds - from) / length)) : 0;
}
