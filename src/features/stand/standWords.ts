import type { Score } from '@/core/music';
import type { LiveWord, Place } from '@/core/hearing/following';

/** What the big word depends on. */
export interface Moment {
  readonly score: Score;
  /** Beat of the music; null in free time. */
  readonly beat: number | null;
  /** Beat that this stretch begins with: before it is the count-in. */
  readonly fromBeat: number;
  readonly place: Place;
  readonly hidden: boolean;
  readonly byBeat: boolean;
  /** What the sound itself gives reason to say. */
  readonly live: LiveWord;
}

/** One word of advice at a time, and a line under it. */
export function wordNow({ score, beat, fromBeat, place, hidden, byBeat, live }: Moment): LiveWord {
  if (beat !== null && beat < fromBeat)
    return { word: String(Math.ceil(fromBeat - beat)), hint: 'counting in' };
  if (score.notes.length === 0) {
    const picture = score.pictures.find(
      (each) => beat !== null && beat >= each.startBeat && beat < each.startBeat + each.beats,
    );
    return picture ? { word: picture.shape, hint: picture.text } : { word: '', hint: '' };
  }
  if (place.resting && (place.group > 0 || byBeat)) return { word: 'breathe', hint: 'then go on' };
  if (hidden) return { word: '·', hint: 'the reading is hidden' };
  // Who explores is not told what to change.
  if (score.counts.exploring) return { word: 'listen', hint: score.cue ?? 'explore' };
  return live.word === 'hold' && score.cue ? { word: 'hold', hint: score.cue } : live;
}
