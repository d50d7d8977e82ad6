import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Place } from '@/core/hearing/following';
import { groupsOf } from '@/core/hearing/matching';
import { findInstrument } from '@/core/instruments';
import { secondsAt } from '@/core/music';
import { wordNow, type Moment } from './standWords';

const flute = findInstrument('flute')!;
const made = (family: string, values = {}) => scoreOfFamily(family, 'flute', values);
const going: Place = { group: 1, musicSeconds: 1, resting: false, state: 'going' };
const moment = (part: Partial<Moment>): Moment => {
  const score = part.score ?? made('octave-slurs');
  return {
    score,
    groups: groupsOf(score, flute),
    beat: 2,
    fromBeat: 0,
    place: going,
    hidden: false,
    byBeat: true,
    live: { kind: 'off', cents: -8 },
    ...part,
  };
};
/** What is said in the middle of each note of a score, while it sounds as it should. */
function wordsOf(family: string, values = {}, share = 0.5): string[] {
  const score = made(family, values);
  const groups = groupsOf(score, flute);
  return groups.map((group) => {
    const from = secondsAt(score, group.startBeat);
    const to = secondsAt(score, group.startBeat + group.beats);
    const place = { ...going, group: group.index, musicSeconds: from + share * (to - from) };
    return wordNow(
      moment({ score, groups, place, beat: group.startBeat + share * group.beats, live: { kind: 'held' } }),
    ).word;
  });
}

describe('the big word', () => {
  it('counts in as musicians count: one bar, 1 2 3 4, also where a block is gone on with', () => {
    expect([-4, -3, -2, -1].map((beat) => wordNow(moment({ beat })).word)).toEqual(['1', '2', '3', '4']);
    expect(wordNow(moment({ beat: 6.5, fromBeat: 8 }))).toEqual({ word: '3', hint: 'counting in' });
  });

  it('says one thing: what to change, or to breathe where nothing is asked', () => {
    expect(wordNow(moment({}))).toEqual({ word: '8 low', hint: 'cents' });
    expect(wordNow(moment({ place: { ...going, resting: true } })).word).toBe('breathe');
    expect(wordNow(moment({ live: { kind: 'another', high: false } })).word).toBe('too low');
  });

  it('waits in free time, and with a beat that goes on it does not', () => {
    const free = { byBeat: false, beat: null, place: { ...going, group: 0, resting: true } };
    expect(wordNow(moment({ ...free, live: { kind: 'silent' } }))).toEqual({
      word: 'play',
      hint: 'when you are ready',
    });
    expect(wordNow(moment({ live: { kind: 'silent' } })).hint).toBe('now');
  });

  it('says what is asked now: each leg of a bend, each side of a colour, each burst', () => {
    // Plain, down and back are heard as one note, up and back as another.
    const legs = [0.1, 0.5, 0.9].map((share) => wordsOf('bends', {}, share));
    expect(legs.map(([first]) => first)).toEqual(['plain', 'down', 'back']);
    expect([wordsOf('bends', {}, 0.2)[1], wordsOf('bends', {}, 0.8)[1]]).toEqual(['up', 'back']);
    expect(wordsOf('colours').slice(0, 2)).toEqual(['dark', 'clear']);
    expect(wordsOf('pulses')[0]).toBe('burst');
    expect(wordsOf('dynamic-window').slice(0, 2)).toEqual(['softest', 'loudest']);
    expect(wordsOf('angle-sweep').at(-1)).toBe('richest');
  });

  it('never tells a player to keep going where fading is what is asked', () => {
    const fading = { live: { kind: 'fading' as const } };
    for (const family of ['tapers', 'register-test', 'section-chords']) {
      const score = made(family);
      const said = wordNow(moment({ score, place: { ...going, group: 0 }, ...fading }));
      expect(`${family}: ${said.word}`).not.toMatch(/fading/);
    }
    expect(wordsOf('tapers')[0]).toBe('softer');
    expect(wordsOf('swells', {}, 0.2)[0]).toBe('louder');
    expect(wordsOf('swells', {}, 0.8)[0]).toBe('softer');
    expect(wordNow(moment(fading)).word).toBe('fading');
  });

  it('asks for silence in the room check, before the note and after it', () => {
    const score = made('room-check');
    expect(wordNow(moment({ score, beat: 1 }))).toMatchObject({ word: 'silence' });
    const last = score.pictures.at(-1)!;
    expect(wordNow(moment({ score, beat: last.startBeat + 1 })).hint).toMatch(/rings out/);
  });

  it('gives nothing away in blind work', () => {
    expect(wordNow(moment({ hidden: true })).hint).toMatch(/hidden/);
  });

  it('carries the cue while all is well, and not instead of what has to change', () => {
    const score = made('octave-slurs', { cue: 'head still' });
    expect(wordNow(moment({ score, live: { kind: 'held' } })).hint).toBe('head still');
    expect(wordNow(moment({ score })).hint).toBe('cents');
  });

  it('follows the picture where there is no instrument', () => {
    const score = made('air-drills');
    const first = score.pictures[0]!;
    expect(wordNow(moment({ score, beat: first.startBeat + 0.1 }))).toEqual({
      word: first.shape,
      hint: first.text,
    });
  });
});
