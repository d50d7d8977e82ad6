import type { Session, SessionOptions } from '@/audio';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument } from '@/core/instruments';
import { defaultSettings } from '@/store';
import type { ThreadPoint } from '@/ui';
import { Following, type Followed } from './following';
import { installFrames, type Frames } from '@/features/sound/frames.testing';
import { MockSession } from './mockSession.testing';

const flute = findInstrument('flute')!;
const score = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 }, tempo: 60 });
/** Written is sounding on a flute; the first breath is E4, E5, E4. */
const FIRST = 64;

let frames: Frames;
let painted: ThreadPoint[];
let followed: Followed[];
beforeEach(() => {
  frames = installFrames();
  painted = [];
  followed = [];
});

async function begun(following: Following, { byBeat = true, waits = false, fromBeat = 0 } = {}) {
  following.attach({ thread: (points) => void painted.push(...points), beat: () => undefined });
  const options = { score, fromBeat, waits, metronome: byBeat ? {} : null, onLive: following.receive };
  const session = await MockSession.start(options as unknown as SessionOptions);
  following.begin(session as unknown as Session, waits, (each) => void followed.push(each));
  frames.pass();
  return session;
}
const following = (byBeat: boolean, group = 0) =>
  new Following({ score, instrument: flute, settings: defaultSettings, byBeat, limitCents: 8 }, group);

describe('following', () => {
  it('paints no sound from before the music, but a note that comes a little early', async () => {
    const session = await begun(following(true));
    session.beat = -1.5;
    session.hears(100, 0.3);
    frames.pass();
    expect(painted.length).toBeGreaterThan(10);
    expect(painted.every(({ midi }) => Number.isNaN(midi))).toBe(true);
    painted = [];
    session.beat = 0;
    session.hears(FIRST, 0.3);
    frames.pass();
    expect(painted.every(({ midi, seconds }) => midi > FIRST - 1 && seconds > -0.4)).toBe(true);
  });

  it('begins with the breath that a stretch begins with', async () => {
    const each = following(true);
    const second = each.nextPhrase(0);
    each.restart(second);
    expect(each.fromBeat).toBe(Math.floor(each.groups[second]!.startBeat));
    expect(each.phraseStart(second + 1)).toBe(second);
    const session = await begun(each, { fromBeat: each.fromBeat });
    session.beat = each.fromBeat - 1;
    session.hears(FIRST, 0.3);
    session.beat = each.fromBeat + 0.5;
    frames.pass();
    expect(followed[followed.length - 1]!.place.group).toBe(second);
  });

  it('does nothing while it waits for a note, which then begins the beat and is none of the music', async () => {
    const session = await begun(following(true), { waits: true });
    frames.pass();
    expect(followed).toEqual([]);
    session.hears(81, 0.6);
    frames.pass();
    expect(session.isBeating).toBe(true);
    frames.pass();
    expect(followed[followed.length - 1]!.place.group).toBe(0);
  });

  it('goes in free time where it is sent, and stops when it is over', async () => {
    const each = following(false);
    await begun(each, { byBeat: false });
    each.moveTo(4);
    frames.pass();
    expect(followed[followed.length - 1]!.place.group).toBe(4);
    each.end();
    const { length } = followed;
    frames.pass();
    expect(followed).toHaveLength(length);
  });
});
