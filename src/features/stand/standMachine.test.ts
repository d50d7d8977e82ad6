import * as fc from 'fast-check';
import { standStep, type StandEvent, type StandModel, type StandWorld } from './standMachine';
import { READY } from './standState';

const model = (part: Partial<StandModel> = {}): StandModel => ({
  ...READY,
  phase: 'ready',
  problem: null,
  group: 0,
  page: 0,
  hidden: false,
  metronome: true,
  drone: false,
  beat: 0,
  free: false,
  sounding: null,
  listening: false,
  after: 'finish',
  heard: false,
  interruption: null,
  stopped: null,
  ...part,
});
const world = (part: Partial<StandWorld> = {}): StandWorld => ({
  byBeat: true,
  microphone: true,
  pageOf: (group) => Math.floor(group / 4),
  phraseStart: (group) => group - (group % 4),
  nextPhrase: (group) => group - (group % 4) + 4,
  isPageHidden: () => false,
  ...part,
});
const effects = (from: StandModel, event: StandEvent, there = world()) =>
  standStep(from, event, there)[1].map((effect) => effect.do);

const plain = [
  'start',
  'stop',
  'again',
  'next',
  'cancel',
  'metronome',
  'hide',
  'over',
  'lost',
  'dose-over',
  'stored',
  'page-hidden',
  'page-shown',
] as const;
const anyEvent: fc.Arbitrary<StandEvent> = fc.oneof(
  fc.constantFrom(...plain).map((type) => ({ type })),
  fc.boolean().map((sounding) => ({ type: 'drone' as const, sounding })),
  fc.boolean().map((waiting) => ({ type: 'opened' as const, waiting })),
  fc.constant({ type: 'failed' as const, problem: 'unplugged' }),
  fc.nat(20).map((group) => ({ type: 'moved' as const, group })),
  fc.constant({ type: 'measured' as const, interruption: null }),
);

describe('the stand', () => {
  it('begins, listens, ends, measures, stores and leaves', () => {
    let now = model();
    const done: string[] = [];
    const happen = (event: StandEvent) => {
      const [next, todo] = standStep(now, event, world());
      now = next;
      done.push(...todo.map((effect) => effect.do));
    };
    happen({ type: 'start' });
    expect(now.phase).toBe('opening');
    happen({ type: 'opened', waiting: false });
    happen({ type: 'said', word: '1', hint: 'counting in', phase: 'counting', beat: 0, sounding: null });
    happen({ type: 'over' });
    expect(now.phase).toBe('measuring');
    happen({ type: 'measured', interruption: null });
    happen({ type: 'stored' });
    expect(done).toEqual(['begin-running', 'open', 'finish', 'store', 'leave']);
  });

  it('whatever opening fails with is shown, with a way on, and never "getting ready" for ever', () => {
    const [opening] = standStep(model(), { type: 'start' }, world());
    const [failed] = standStep(opening, { type: 'failed', problem: 'no microphone' }, world());
    expect(failed).toMatchObject({ phase: 'problem', problem: 'no microphone', listening: false });
    expect(effects(failed, { type: 'start' })).toEqual(['open']);
    const [paused] = standStep({ ...opening, heard: true }, { type: 'failed', problem: 'x' }, world());
    expect(paused.phase).toBe('paused');
  });

  it('a lost player is waited for where a microphone hears them, and by a key elsewhere', () => {
    const playing = model({ phase: 'playing', listening: true, group: 6 });
    const [ending] = standStep(playing, { type: 'lost' }, world());
    const [waiting, todo] = standStep(ending, { type: 'measured', interruption: null }, world());
    expect(waiting).toMatchObject({ phase: 'opening', group: 4 });
    expect(todo).toEqual([{ do: 'open', group: 4, waits: true }]);
    const [paused, none] = standStep(
      ending,
      { type: 'measured', interruption: null },
      world({ microphone: false }),
    );
    expect([paused.phase, none]).toEqual(['paused', []]);
  });

  it('never finishes what does not listen, never opens twice, and never hangs: whatever happens in whatever order', () => {
    fc.assert(
      fc.property(fc.array(anyEvent, { maxLength: 40 }), fc.boolean(), (events, microphone) => {
        let now = model();
        let open = false;
        for (const event of events) {
          const was = now;
          const [next, todo] = standStep(now, event, world({ microphone }));
          for (const effect of todo) {
            if (effect.do === 'finish') expect(was.listening).toBe(true);
            if (effect.do === 'open') open = true;
            if (effect.do === 'begin-running') expect(was.phase).toBe('ready');
          }
          // What is being opened ends in one of two ways, and either is a state to go on from.
          if (next.phase === 'opening') expect(open).toBe(true);
          now = next;
        }
        expect(now.page).toBe(Math.floor(now.group / 4));
      }),
    );
  });
});

describe('the sound stops by itself', () => {
  const playing = model({ phase: 'playing', listening: true, heard: true, group: 6, word: 'true', hint: '' });
  const reason = 'A call took the sound.';

  it('what was heard is measured up to there, the player is told, and it goes on from that breath', () => {
    const [ending, finish] = standStep(playing, { type: 'sound-stopped', reason }, world());
    expect(finish).toEqual([{ do: 'finish', interruption: reason }]);
    expect(ending).toMatchObject({ phase: 'measuring', problem: reason });
    const [again, open] = standStep(ending, { type: 'measured', interruption: reason }, world());
    expect(open).toEqual([{ do: 'open', group: 4, waits: true }]);
    expect(again).toMatchObject({ phase: 'opening', problem: reason, interruption: reason });
    const [waiting] = standStep(again, { type: 'opened', waiting: true }, world());
    expect(waiting.problem).toBe(reason);
    const [on] = standStep(
      waiting,
      { type: 'said', word: 'true', hint: '', phase: 'playing', beat: 0, sounding: null },
      world(),
    );
    expect(on).toMatchObject({ problem: null, stopped: null, interruption: reason });
  });

  it('a device that does not give it back leaves what was heard, to be gone on with or finished', () => {
    const [ending] = standStep(playing, { type: 'sound-stopped', reason }, world());
    const [again] = standStep(ending, { type: 'measured', interruption: reason }, world());
    const [failed] = standStep(again, { type: 'failed', problem: 'still held' }, world());
    expect(failed).toMatchObject({ phase: 'paused', problem: 'still held', heard: true });
    expect(standStep(failed, { type: 'stop' }, world())[1]).toEqual([{ do: 'store' }]);
  });

  it('before a note was heard nothing is kept, and the stand says why', () => {
    const waiting = model({ phase: 'waiting', listening: true });
    const [next, done] = standStep(waiting, { type: 'sound-stopped', reason }, world());
    expect(next).toMatchObject({ phase: 'ready', problem: reason, listening: false });
    expect(done).toEqual([{ do: 'drop' }, { do: 'clear-running' }]);
  });
});
