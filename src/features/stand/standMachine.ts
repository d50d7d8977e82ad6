import type { Midi } from '@/core/base';
import { READY, type StandState } from './standState';

/** What the stand is, and what it has yet to do. */
export interface StandModel extends StandState {
  /** A session listens. */
  readonly listening: boolean;
  /** What is done once the stretch that ends has been measured. */
  readonly after: 'finish' | 'pause' | 'again';
  /** Something has been heard and is kept. */
  readonly heard: boolean;
  readonly interruption: string | null;
  /** Why the sound stopped; null: it goes on, or was never stopped. */
  readonly stopped: string | null;
}

/** What happens to the stand: by the player, by the session, by the music, by the page. */
export type StandEvent =
  | { readonly type: 'start' | 'stop' | 'again' | 'next' | 'cancel' }
  | { readonly type: 'metronome' | 'hide' }
  /** @property sounding whether the session that listens knows of a drone. */
  | { readonly type: 'drone'; readonly sounding: boolean }
  | { readonly type: 'opened'; readonly waiting: boolean }
  | { readonly type: 'failed'; readonly problem: string }
  /** The sound stopped without having been asked to. */
  | { readonly type: 'sound-stopped'; readonly reason: string }
  | { readonly type: 'moved'; readonly group: number }
  | {
      readonly type: 'said';
      readonly word: string;
      readonly hint: string;
      readonly phase: 'counting' | 'playing';
      readonly beat: number;
      readonly sounding: Midi | null;
    }
  | { readonly type: 'over' | 'lost' | 'dose-over' }
  | { readonly type: 'measured'; readonly interruption: string | null }
  | { readonly type: 'stored' }
  | { readonly type: 'page-hidden' | 'page-shown' };

/** What is to be done about it, in this order. */
export type StandEffect =
  | { readonly do: 'open'; readonly group: number; readonly waits: boolean }
  | { readonly do: 'finish'; readonly interruption: string | null }
  | { readonly do: 'move'; readonly group: number }
  | { readonly do: 'metronome' | 'drone'; readonly on: boolean }
  | { readonly do: 'drop' | 'begin-beat' | 'store' | 'leave' | 'begin-running' | 'clear-running' };

/** What does not change while a block is on the stand. */
export interface StandWorld {
  /** The beat leads, not the player. */
  readonly byBeat: boolean;
  readonly microphone: boolean;
  readonly pageOf: (group: number) => number;
  /** Groups that the breath of a group, and the next breath, begin with. */
  readonly phraseStart: (group: number) => number;
  readonly nextPhrase: (group: number) => number;
  readonly isPageHidden: () => boolean;
}

export type StandStep = readonly [model: StandModel, effects: readonly StandEffect[]];

const MEASURING = { phase: 'measuring', word: '…' } as const;
const BUSY = ['measuring', 'opening'];
const DOSE_OVER = 'The dose is over: it ended by itself. Rest before the next.';

/** The stand's whole behaviour: what it is next, and what is done meanwhile. */
export function standStep(model: StandModel, event: StandEvent, world: StandWorld): StandStep {
  const { phase, group, listening } = model;
  const same: StandStep = [model, []];
  switch (event.type) {
    case 'start':
      if (listening || BUSY.includes(phase)) return same;
      return [
        opening(model, world),
        [
          ...(phase === 'ready' ? [{ do: 'begin-running' } as const] : []),
          { do: 'open', group: phase === 'paused' ? group : 0, waits: false },
        ],
      ];
    case 'stop':
      if (phase === 'waiting' && !model.heard) return given(model);
      if (listening) return ending(model, 'finish', null);
      return model.heard ? storing(model) : same;
    case 'cancel':
      return given(model);
    case 'again': {
      const from = world.phraseStart(group);
      if (!listening || phase === 'waiting') return same;
      if (!world.byBeat) return [at(model, from, world), [{ do: 'move', group: from }]];
      const [next, effects] = ending(model, 'again', null);
      return [at(next, from, world), effects];
    }
    case 'next': {
      if (!listening) return standStep(model, { type: 'start' }, world);
      if (phase === 'waiting') return [model, [{ do: 'begin-beat' }]];
      if (world.byBeat) return same;
      const to = world.nextPhrase(group);
      return [at(model, to, world), [{ do: 'move', group: to }]];
    }
    case 'metronome':
      return [{ ...model, metronome: !model.metronome }, [{ do: 'metronome', on: !model.metronome }]];
    case 'drone': {
      const next = { ...model, drone: !model.drone };
      // What will sound has to be known before it is listened to, so that it can be taken out: this breath begins again.
      if (listening && next.drone && !event.sounding) return ending(next, 'again', null);
      return [next, [{ do: 'drone', on: next.drone }]];
    }
    case 'hide':
      return [{ ...model, hidden: !model.hidden }, []];
    case 'opened':
      return [
        {
          ...model,
          listening: true,
          ...(event.waiting && { phase: 'waiting', word: 'play', hint: 'any note, and the count-in begins' }),
        },
        [],
      ];
    case 'failed':
      // What was heard before is still there, to be finished or gone on with.
      return [
        {
          ...model,
          listening: false,
          phase: model.heard ? 'paused' : 'problem',
          problem: event.problem,
          word: '',
          hint: '',
        },
        [],
      ];
    case 'sound-stopped': {
      const { reason } = event;
      if (!listening) return same;
      if (phase === 'waiting' && !model.heard) {
        const [next, effects] = given(model);
        return [{ ...next, problem: reason }, effects];
      }
      return ending({ ...model, stopped: reason, interruption: reason, problem: reason }, 'pause', reason);
    }
    case 'moved':
      return event.group === group ? same : [at(model, event.group, world), []];
    case 'said': {
      const { word, hint, beat, sounding } = event;
      return [{ ...model, word, hint, beat, sounding, phase: event.phase, stopped: null, problem: null }, []];
    }
    case 'over':
      return ending(model, 'finish', null);
    case 'lost':
      return ending(model, 'pause', null);
    case 'dose-over':
      return ending(model, 'finish', DOSE_OVER);
    case 'measured':
      return measured(
        { ...model, listening: false, heard: true, interruption: model.interruption ?? event.interruption },
        world,
      );
    case 'stored':
      return [model, [{ do: 'leave' }]];
    case 'page-hidden':
      return listening ? ending(model, 'pause', null) : same;
    case 'page-shown':
      return phase === 'paused' && !listening
        ? [{ ...model, word: 'paused', hint: 'the page was hidden; press start to go on' }, []]
        : same;
  }
}

const at = (model: StandModel, group: number, world: StandWorld): StandModel => ({
  ...model,
  group,
  page: world.pageOf(group),
});

const opening = (model: StandModel, { microphone }: StandWorld): StandModel => ({
  ...model,
  phase: 'opening',
  problem: model.stopped,
  word: '…',
  hint: microphone ? 'opening the microphone' : 'getting ready',
});

/** What has been played of the block is given up. */
const given = (model: StandModel): StandStep => [
  { ...model, ...READY, phase: 'ready', listening: false, heard: false },
  [{ do: 'drop' }, { do: 'clear-running' }],
];

function ending(model: StandModel, after: StandModel['after'], interruption: string | null): StandStep {
  if (!model.listening || model.phase === 'measuring') return [model, []];
  const hint = after === 'finish' ? 'measuring' : 'one moment';
  return [{ ...model, ...MEASURING, hint, after }, [{ do: 'finish', interruption }]];
}

const storing = (model: StandModel): StandStep => [
  { ...model, ...MEASURING, hint: 'measuring' },
  [{ do: 'store' }],
];

/** A stretch has been measured. */
function measured(model: StandModel, world: StandWorld): StandStep {
  const group = world.phraseStart(model.group);
  if (model.after === 'again') return [opening(model, world), [{ do: 'open', group, waits: false }]];
  if (model.after === 'finish') return storing(model);
  const paused: StandModel = {
    ...at(model, group, world),
    phase: 'paused',
    word: model.stopped === null ? 'paused' : 'no sound',
    hint: world.microphone ? 'play, or press the pedal, to go on' : 'press the pedal, or Go on',
  };
  // Only a microphone can wait for a note; everything else goes on by a key.
  return world.microphone && !world.isPageHidden()
    ? [opening(paused, world), [{ do: 'open', group, waits: true }]]
    : [paused, []];
}
