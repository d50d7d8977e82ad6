import type { Cents } from '@/core/base';
import type { Session } from '@/audio';
import { secondsAt, type Score } from '@/core/music';
import { Conductor, type HeardNow, type LiveRemark, type Place } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
import type { Group } from '@/core/hearing/matching';
import { tuningOf, type Settings } from '@/store';
import { LiveThread } from './liveThread';
import { StandPainter, type StandSinks } from './standPainter';

export interface FollowingOptions {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly settings: Settings;
  readonly byBeat: boolean;
  /** Nearer to the pitch than this nothing is said of it. */
  readonly limitCents: Cents;
}

/** Where the music is at one screen frame. */
export interface Followed {
  /** Time of the frame, ms. */
  readonly now: number;
  /** Beat of the music; null in free time. */
  readonly beat: number | null;
  readonly place: Place;
  /** What the sound itself gives reason to say. */
  readonly live: LiveRemark;
  /** What sounds, where nothing is asked; null in silence. */
  readonly heard: HeardNow | null;
}

/** Before the music nothing but a note that comes too early is painted: the room, a click, the last warming up. */
const EARLY_SECONDS = 0.4;

/** Follows what sounds through the music and paints it, screen frame by screen frame; one session after the other. */
export class Following {
  private readonly painter = new StandPainter();
  private conductor: Conductor;
  private thread: LiveThread;
  private request = 0;
  private firstBeat = 0;
  private waiting = false;

  /** @param group that the music begins with. */
  constructor(
    private readonly options: FollowingOptions,
    group: number,
  ) {
    ({ conductor: this.conductor, thread: this.thread } = this.anew(group));
  }

  get groups(): readonly Group[] {
    return this.conductor.groups;
  }

  attach(sinks: StandSinks): void {
    this.painter.attach(sinks);
  }

  /** Group that the breath of a group begins with. */
  phraseStart(group: number): number {
    return this.conductor.phraseStart(group);
  }

  /** Group that the next breath begins with. */
  nextPhrase(group: number): number {
    return this.conductor.nextPhrase(group);
  }

  /** Beat that the music begins with; before it is the count-in. */
  get fromBeat(): number {
    return this.firstBeat;
  }

  /** Nothing has been heard yet, and the music begins with a group. */
  restart(group: number): void {
    this.firstBeat = group > 0 ? Math.floor(this.groups[group]?.startBeat ?? 0) : 0;
    ({ conductor: this.conductor, thread: this.thread } = this.anew(group));
    this.thread.ask(group);
  }

  /** In free time: from another group on. */
  moveTo(group: number): void {
    this.conductor.moveTo(group);
    this.thread.ask(group);
  }

  /** Live frames of the session. */
  readonly receive = (frames: Float32Array): void => this.thread.receive(frames);

  /** @param waits until a note or a key begins the beat; until then nothing is followed. */
  begin(session: Session, waits: boolean, onFrame: (followed: Followed) => void): void {
    this.painter.begin();
    this.waiting = waits;
    const tick = (now: number) => {
      this.request = requestAnimationFrame(tick);
      if (this.waiting) {
        this.thread.drain(0);
        if (this.conductor.hasTone) this.beginMusic(session);
      } else this.frame(session, now, onFrame);
    };
    this.request = requestAnimationFrame(tick);
  }

  /** By the beat, the tone that began it is none of the music's; in free time it is its first. */
  beginMusic(session: Session): void {
    this.waiting = false;
    if (!this.options.byBeat) return;
    this.conductor.forgetTone();
    session.beginBeat();
  }

  end(): void {
    cancelAnimationFrame(this.request);
    this.painter.end();
  }

  private frame(session: Session, now: number, onFrame: (followed: Followed) => void): void {
    const { score, settings } = this.options;
    const began = performance.now();
    const { beat } = session;
    const place = this.conductor.tell(this.thread.newest, beat);
    this.painter.beat(settings.metronome.mode === 'off' ? null : beat, score);
    this.thread.ask(place.group);
    const points = this.thread.drain(beat === null ? null : place.musicSeconds);
    const begins = beat === null ? -Infinity : secondsAt(score, this.firstBeat) - EARLY_SECONDS;
    this.painter.thread(points.map((point) => (point.seconds < begins ? { ...point, midi: NaN } : point)));
    const { newest } = this.thread;
    const age = session.ageOf(newest);
    onFrame({ now, beat, place, live: this.thread.remark, heard: this.thread.heard });
    this.painter.account(newest, age, now, began);
  }

  private anew(group: number): { conductor: Conductor; thread: LiveThread } {
    const { score, instrument, settings, byBeat, limitCents } = this.options;
    const conductor = new Conductor({ score, instrument, byBeat, from: group });
    return {
      conductor,
      thread: new LiveThread(
        conductor,
        settings.a4,
        tuningOf(settings).offsets,
        byBeat,
        limitCents,
        score.free ? instrument : null,
      ),
    };
  }
}
