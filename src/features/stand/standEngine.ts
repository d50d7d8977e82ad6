import type { Midi } from '@/core/base';
import { Session, SourceProblem, type SessionOptions, type SourceChoice } from '@/audio';
import { pagesOf, type Page } from '@/core/hearing/following';
import { writtenOf, type Instrument } from '@/core/instruments';
import { displayName } from '@/core/tuning';
import { scoreBeats, unfolded, type Score } from '@/core/music';
import type { Take } from '@/core/take';
import { limitsOf } from '@/core/verdict';
import { beginRunning, clearRunning, refreshRunning, type Running, type Settings } from '@/store';
import { Following, type Followed } from './following';
import { keepTake } from './keepTake';
import {
  standStep,
  type StandEffect,
  type StandEvent,
  type StandModel,
  type StandWorld,
} from './standMachine';
import type { StandSinks } from './standPainter';
import { sessionParts, sourceChoice } from './standSession';
import { READY, type StandState } from './standState';
import { freeWord, wordNow } from './standWords';
import { Stretches } from './stretches';

export interface StandOptions {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly settings: Settings;
  readonly running: Running | null;
  /** @param take as it lies among the drafts. */
  readonly onDone: (take: Take) => void;
  /** The first stretch waits for a note, or for `next`. */
  readonly waits?: boolean;
}

const WORD_MS = 220;
const PAGE_CLOSED = 'The page was closed while this was played; what was heard until then is kept.';
const RECORDING_GONE =
  'The recording has to be chosen again after a reload: go back to the exercise and choose it.';

/** Runs one block on the stand: does what the machine asks for, and tells it what happens. */
export class StandEngine {
  readonly score: Score;
  readonly pages: readonly Page[];
  private model: StandModel;
  private readonly world: StandWorld;
  private readonly listeners = new Set<() => void>();
  private readonly following: Following;
  private readonly stretches: Stretches;
  private session: Session | null = null;
  private nextWord = 0;
  /** Seconds of playing before this stretch, for the dose. */
  private playedBefore = 0;
  private startedAt: number | null = null;
  private disposed = false;
  private take: Take | null = null;

  constructor(private readonly options: StandOptions) {
    const { settings, running, instrument } = options;
    this.score = unfolded(options.score);
    const hasNotes = this.score.notes.length > 0 || this.score.free;
    const byBeat =
      this.score.tempo !== null &&
      (settings.metronome.mode !== 'off' || !hasNotes) &&
      (settings.source !== 'file' || !hasNotes);
    this.stretches = new Stretches(running?.stretches);
    const from = Math.max(0, running?.stretches.at(-1)?.place ?? 0);
    const limitCents = limitsOf(settings.level, settings.ownLimits).centreCents;
    this.following = new Following({ score: this.score, instrument, settings, byBeat, limitCents }, from);
    this.pages = pagesOf(this.score, this.following.groups);
    this.world = {
      byBeat,
      microphone: settings.source === 'microphone' && hasNotes,
      pageOf: (group) => this.pageOf(group),
      phraseStart: (group) => this.following.phraseStart(group),
      nextPhrase: (group) => this.following.nextPhrase(group),
      isPageHidden: () => document.hidden,
    };
    const group = running ? this.following.phraseStart(from) : 0;
    const { word, hint } = running
      ? { word: 'interrupted', hint: `what was heard is kept; go on from note ${group + 1}` }
      : READY;
    this.model = {
      phase: running ? 'paused' : 'ready',
      word,
      hint,
      problem: null,
      group,
      page: this.pageOf(group),
      hidden: this.score.blind,
      metronome: settings.metronome.mode === 'sound',
      drone: this.score.drone.length > 0 && (!this.score.free || this.score.parameters['drone'] === true),
      beat: 0,
      free: this.score.free,
      sounding: null,
      listening: false,
      after: 'finish',
      heard: !this.stretches.isEmpty,
      interruption: interruptionOf(running),
      stopped: null,
    };
    document.addEventListener('visibilitychange', this.onVisibility);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): StandState => this.model;

  attach(sinks: StandSinks): void {
    this.following.attach(sinks);
  }

  /** Begins, or goes on where it was. */
  start = (): void => this.tell({ type: 'start' });
  /** Ends the block; what has been heard is measured. */
  stop = (): void => this.tell({ type: 'stop' });
  /** From the beginning of this breath. */
  again = (): void => this.tell({ type: 'again' });
  /** Goes on: from a pause, or in free time to the next breath. */
  next = (): void => this.tell({ type: 'next' });
  toggleMetronome = (): void => this.tell({ type: 'metronome' });
  toggleDrone = (): void => this.tell({ type: 'drone', sounding: this.session?.hasDrone ?? false });
  toggleHidden = (): void => this.tell({ type: 'hide' });
  /** Gives up what has been played of the block. */
  cancel = (): void => this.tell({ type: 'cancel' });

  /** The screen is left. What has been heard so far stays kept, to be gone on with. */
  dispose(): void {
    this.disposed = true;
    this.following.end();
    this.session?.cancel();
    this.session = null;
    if (!this.stretches.isEmpty || this.model.phase === 'playing') void refreshRunning();
    document.removeEventListener('visibilitychange', this.onVisibility);
  }

  private tell(event: StandEvent): void {
    if (this.disposed && event.type !== 'cancel') return;
    const [model, effects] = standStep(this.model, event, this.world);
    if (model !== this.model) {
      this.model = model;
      for (const listener of this.listeners) listener();
    }
    for (const effect of effects) this.run(effect);
  }

  private run(effect: StandEffect): void {
    switch (effect.do) {
      case 'open':
        void this.open(effect.group, effect.waits);
        break;
      case 'finish':
        if (this.startedAt !== null) this.playedBefore += (performance.now() - this.startedAt) / 1000;
        this.startedAt = null;
        this.following.end();
        this.session?.finish(effect.interruption);
        break;
      case 'drop':
        this.following.end();
        this.session?.cancel();
        this.session = null;
        break;
      case 'move':
        this.following.moveTo(effect.group);
        break;
      case 'begin-beat':
        if (this.session) this.following.beginMusic(this.session);
        break;
      case 'metronome':
        this.session?.setMetronomeSounding(effect.on);
        break;
      case 'drone':
        this.session?.setDroneSounding(effect.on);
        break;
      case 'begin-running':
        this.inBackground(beginRunning(this.score));
        break;
      case 'clear-running':
        this.inBackground(clearRunning());
        break;
      case 'store':
        void this.store();
        break;
      case 'leave':
        if (this.take) this.options.onDone(this.take);
    }
  }

  /** Keeping while playing may fail (a full disk) and must not end the playing: the take itself is still in memory. */
  private inBackground(work: Promise<unknown>): void {
    work.catch((error: unknown) => console.warn('the running block could not be kept', error));
  }

  private readonly nameOf = (sounding: Midi): string =>
    displayName(writtenOf(this.options.instrument, sounding), this.options.settings.naming);

  private pageOf(group: number): number {
    return Math.max(
      0,
      this.pages.findIndex(({ groups }) => groups.some((each) => each.index === group)),
    );
  }

  private async open(group: number, waits: boolean): Promise<void> {
    const { settings } = this.options;
    const source = sourceChoice(this.score, settings);
    if (!source) {
      this.tell({ type: 'failed', problem: RECORDING_GONE });
      return;
    }
    this.following.restart(group);
    const first = group === 0 && this.stretches.isEmpty;
    const waiting =
      source.kind === 'microphone' &&
      ((first && this.options.waits === true) ||
        (this.world.byBeat && (waits || (first && settings.startOn === 'sound'))));
    try {
      const session = await Session.start(this.sessionOptions(source, waiting));
      if (this.disposed || this.model.phase !== 'opening') {
        session.cancel();
        return;
      }
      this.session = session;
      this.tell({ type: 'opened', waiting });
      this.following.begin(session, waiting, this.followed);
    } catch (error) {
      const problem =
        error instanceof SourceProblem ? error.message : `The sound could not be started: ${wordsOf(error)}`;
      this.tell({ type: 'failed', problem });
    }
  }

  private sessionOptions(source: SourceChoice, waits: boolean): SessionOptions {
    const { settings, instrument } = this.options;
    return {
      ...sessionParts(this.score, instrument, this.following.fromBeat, settings, {
        byBeat: this.world.byBeat,
        metronome: this.model.metronome,
        drone: this.model.drone,
      }),
      source,
      waits,
      onLive: this.following.receive,
      onSound: (audio, beside) =>
        this.stretches.keep(audio, beside, this.following.fromBeat, this.model.group),
      onProblem: (problem) => {
        this.following.end();
        this.session = null;
        this.tell({ type: 'failed', problem });
      },
      onStopped: (reason) => this.tell({ type: 'sound-stopped', reason }),
      onResult: (result, from, sampleRate) => {
        this.stretches.finish(result, from, sampleRate, this.following.fromBeat, this.model.group);
        this.following.end();
        this.session = null;
        const { interruption } = result;
        const tell = () => this.tell({ type: 'measured', interruption });
        // Who was cut short may leave at once: only then it is said, when what was heard and why it ended are safe.
        if (interruption === null) tell();
        else void this.stretches.written.then(tell);
      },
    };
  }

  /** Once a screen frame. */
  private readonly followed = (followed: Followed): void => {
    this.tell({ type: 'moved', group: followed.place.group });
    if (this.score.droneLeavesOut)
      this.session?.leaveOut(this.following.groups[followed.place.group]?.sounding);
    this.say(followed);
    this.decide(followed);
  };

  private say({ now, beat, place, live, heard }: Followed): void {
    const { fromBeat, groups } = this.following;
    const counting = beat !== null && beat < fromBeat;
    if (now < this.nextWord && !counting) return;
    const { hidden } = this.model;
    const { score } = this;
    const { byBeat } = this.world;
    const said =
      score.free && !counting && !hidden
        ? freeWord(heard, this.nameOf)
        : wordNow({ score, groups, beat, fromBeat, place, hidden, byBeat, live });
    const sounding =
      heard === null ? this.model.sounding : writtenOf(this.options.instrument, heard.sounding);
    const phase = counting ? 'counting' : 'playing';
    const shownBeat =
      this.score.pictures.length > 0 && beat !== null ? Math.round(beat * 5) / 5 : this.model.beat;
    const { model } = this;
    if (
      said.word === model.word &&
      said.hint === model.hint &&
      phase === model.phase &&
      shownBeat === model.beat &&
      sounding === model.sounding
    )
      return;
    this.nextWord = now + WORD_MS;
    this.tell({ type: 'said', ...said, phase, beat: shownBeat, sounding });
  }

  private decide({ now, beat, place }: Followed): void {
    if (this.model.phase === 'playing') this.startedAt ??= now;
    const played = this.playedBefore + (this.startedAt === null ? 0 : (now - this.startedAt) / 1000);
    const { longestSeconds } = this.score;
    const byItself = this.options.settings.source !== 'file';
    if (longestSeconds !== null && played > longestSeconds) this.tell({ type: 'dose-over' });
    else if (this.score.free) return;
    else if (this.score.notes.length === 0) {
      if (beat !== null && beat >= scoreBeats(this.score)) this.tell({ type: 'over' });
    } else if (place.state !== 'going' && byItself) this.tell({ type: place.state });
  }

  private async store(): Promise<void> {
    const { settings, instrument } = this.options;
    try {
      this.take = await keepTake(this.score, instrument, settings, this.stretches, this.model.interruption);
      this.tell({ type: 'stored' });
    } catch (error) {
      this.tell({ type: 'failed', problem: `The take could not be stored: ${wordsOf(error)}` });
    }
  }

  private readonly onVisibility = (): void =>
    this.tell({ type: document.hidden ? 'page-hidden' : 'page-shown' });
}

/** What cut short a block that is gone on with. */
function interruptionOf(running: Running | null): string | null {
  const cut = running?.stretches.findLast(({ heard }) => heard === null || heard.interruption !== null);
  return cut ? (cut.heard?.interruption ?? PAGE_CLOSED) : null;
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
