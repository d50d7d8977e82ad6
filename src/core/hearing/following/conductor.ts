import type { Seconds } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { expectsPartner, glideOf, scoreBeats, secondsAt, type Score } from '@/core/music';
import { Aligner, groupsOf, LiveNotes, type Group, type LiveSound } from '@/core/hearing/matching';
import { OtherTone } from './other';

/** Where the music is now, and what should be done about it. */
export interface Place {
  /** Group that sounds or is to sound next; −1 when there is none. */
  readonly group: number;
  /** Time in the music, for drawing: it stands still where the player does in free time. */
  readonly musicSeconds: Seconds;
  /** Between two breaths or before the first note, where nothing is asked. */
  readonly resting: boolean;
  /** `over`: all of it has been played; `lost`: nothing has been heard for long where something was asked. */
  readonly state: 'going' | 'over' | 'lost';
}

export interface ConductorOptions {
  readonly score: Score;
  readonly instrument: Instrument;
  /** The beat leads; otherwise the player does, and a note is done when it has been held and left. */
  readonly byBeat: boolean;
  /** Group that is begun with. */
  readonly from: number;
}

const LEFT: Seconds = 0.18;
const OVER_AFTER: Seconds = 1.2;
const SINGLE_OVER_AFTER: Seconds = 1.4;
const LOST_AFTER: Seconds = 6;
/** Share of its length that a note is held before leaving it means going on. */
const HELD_SHARE = 0.3;
const HELD_AT_MOST: Seconds = 0.8;
const SOUNDING_DB = 9;
/** A pitch as loud as this is no room, even when the room has not been heard alone yet. */
const CERTAIN_DB = -45;
const LEAST_TONE: Seconds = 0.35;

/** Follows the player through a score while it is played: by the beat, or in free time by what is heard. */
export class Conductor {
  readonly groups: readonly Group[];
  private readonly notes: LiveNotes;
  private readonly other: OtherTone | null;
  private aligner: Aligner;
  private first: number;
  private reached = -1;
  private reachedAt: Seconds = 0;
  private lastSound: Seconds = -Infinity;
  private quietest = Infinity;
  private toneFor = 0;
  private toneHeard = false;
  private silentAsked = 0;
  private previous: Seconds | null = null;

  constructor(private readonly options: ConductorOptions) {
    this.notes = new LiveNotes(options.instrument);
    this.groups = groupsOf(options.score, options.instrument);
    this.first = Math.max(0, Math.min(options.from, this.groups.length - 1));
    this.aligner = this.alignerFrom(this.first);
    this.other = expectsPartner(options.score) && !options.byBeat ? new OtherTone() : null;
  }

  /** One live frame. @param sound its pitch NaN where there is none. */
  hear(whole: LiveSound): void {
    const sound = this.other?.without(whole, this.askedPitch) ?? whole;
    const { seconds, midi, levelDb } = sound;
    const step = this.previous === null ? 0 : Math.max(0, seconds - this.previous);
    this.previous = seconds;
    this.quietest = Math.min(levelDb, this.quietest + step * 0.5);
    const audible = levelDb > Math.max(-72, Math.min(CERTAIN_DB, this.quietest + SOUNDING_DB));
    const sounds = !Number.isNaN(midi) && audible;
    this.toneFor = sounds ? this.toneFor + step : 0;
    if (this.toneFor > LEAST_TONE) this.toneHeard = true;
    if (sounds) {
      this.lastSound = seconds;
      this.silentAsked = 0;
    } else this.silentAsked += step;
    const note = this.notes.push(sounds ? sound : { ...sound, midi: NaN });
    if (!note || this.options.byBeat) return;
    this.aligner.push(note);
    const place = this.aligner.place;
    if (place < 0) return;
    const group = this.first + place;
    if (group !== this.reached) this.reachedAt = note.startSeconds;
    this.reached = group;
  }

  /** A tone has been heard that was more than a click or a cough. */
  get hasTone(): boolean {
    return this.toneHeard;
  }

  /** The note before `hasTone` is asked again has to be a new one. */
  forgetTone(): void {
    this.toneHeard = false;
    this.toneFor = 0;
    this.silentAsked = 0;
  }

  /** Goes on (or back) to a group, in free time. */
  moveTo(group: number): void {
    this.first = Math.max(0, Math.min(group, this.groups.length - 1));
    this.aligner = this.alignerFrom(this.first);
    this.reached = -1;
  }

  /** Group that the breath begins with in which a group lies. */
  phraseStart(group: number): number {
    const { phrase } = this.groups[Math.max(0, group)] ?? { phrase: 0 };
    return Math.max(
      0,
      this.groups.findIndex((each) => each.phrase === phrase),
    );
  }

  /** First group of the next breath; the last group when there is none. */
  nextPhrase(group: number): number {
    const { phrase } = this.groups[Math.max(0, group)] ?? { phrase: 0 };
    const next = this.groups.findIndex((each) => each.phrase > phrase);
    return next < 0 ? this.groups.length - 1 : next;
  }

  /** @param now take time. @param beat of the music, negative in the count-in; null in free time. */
  tell(now: Seconds, beat: number | null): Place {
    return beat === null ? this.tellFree(now) : this.tellBeat(now, beat);
  }

  /** What is asked for now: the next note once this one has been left. */
  private get askedPitch(): number | undefined {
    const { group } = this.tellFree(this.previous ?? 0);
    return this.groups[group]?.sounding;
  }

  private tellBeat(now: Seconds, beat: number): Place {
    const { score } = this.options;
    const { groups } = this;
    const total = scoreBeats(score);
    let group = -1;
    for (let i = this.first; i < groups.length && groups[i]!.startBeat <= Math.max(beat, 0) + 1e-6; i++)
      group = i;
    if (group < 0) group = this.first;
    const here = groups[group];
    const resting =
      here !== undefined && (beat >= here.startBeat + here.beats - 1e-6 || beat < here.startBeat - 1);
    // Before its note, and between two, silence is what is asked for.
    if (resting || beat < 1 || (here && beat < here.startBeat)) this.silentAsked = 0;
    const silent = now - this.lastSound;
    const alone =
      groups.length === 1 &&
      score.pictures.length === 0 &&
      this.toneHeard &&
      beat > 0 &&
      silent > SINGLE_OVER_AFTER;
    const over = (beat >= total && (silent > 0.5 || beat > total + 2)) || alone;
    const lost = !over && groups.length > 0 && beat > 0 && this.silentAsked > LOST_AFTER;
    return {
      group: resting && here && beat >= here.startBeat && groups[group + 1] ? group + 1 : group,
      musicSeconds: beat < 0 ? beat * secondsAt({ ...score, swing: false }, 1) : secondsAt(score, beat),
      resting,
      state: over ? 'over' : lost ? 'lost' : 'going',
    };
  }

  private tellFree(now: Seconds): Place {
    const { score } = this.options;
    const { groups, reached } = this;
    const silent = now - this.lastSound;
    const here = groups[reached];
    if (!here) {
      const start = groups[this.first];
      return {
        group: start ? this.first : -1,
        musicSeconds: start ? secondsAt(score, start.startBeat) - 0.3 : 0,
        resting: true,
        state: 'going',
      };
    }
    const begin = secondsAt(score, here.startBeat);
    const length = secondsAt(score, here.startBeat + here.beats) - begin;
    const held = Math.min(now, this.lastSound) - this.reachedAt;
    const left = silent > LEFT && held >= Math.min(HELD_AT_MOST, HELD_SHARE * length);
    const last = reached === groups.length - 1;
    return {
      group: left && !last ? reached + 1 : reached,
      musicSeconds: begin + Math.min(Math.max(0, held), 0.97 * length),
      resting: silent > LEFT,
      state: last && left && silent > OVER_AFTER ? 'over' : 'going',
    };
  }

  private alignerFrom(group: number): Aligner {
    const { instrument, score } = this.options;
    return new Aligner({
      groups: this.groups.slice(group).map((each, index) => ({ ...each, index })),
      instrument,
      expected: null,
      beatSeconds: 1,
      bending: score.notes.some(({ role }) => glideOf(role) !== null),
    });
  }
}
