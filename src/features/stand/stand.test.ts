import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Place } from '@/core/hearing/following';
import { wordNow, type Moment } from './standWords';

const made = (family: string, values = {}) => scoreOfFamily(family, 'flute', values);
const going: Place = { group: 1, musicSeconds: 1, resting: false, state: 'going' };
const moment = (part: Partial<Moment>): Moment => ({
  score: made('octave-slurs'),
  beat: 2,
  fromBeat: 0,
  place: going,
  hidden: false,
  byBeat: true,
  live: { word: '8 low', hint: 'cents' },
  ...part,
});

describe('the big word', () => {
  it('counts in, also where a block is gone on with', () => {
    expect(wordNow(moment({ beat: -2.4 })).word).toBe('3');
    expect(wordNow(moment({ beat: 6.5, fromBeat: 8 }))).toEqual({ word: '2', hint: 'counting in' });
  });

  it('says one thing: what to change, or to breathe where nothing is asked', () => {
    expect(wordNow(moment({}))).toEqual({ word: '8 low', hint: 'cents' });
    expect(wordNow(moment({ place: { ...going, resting: true } })).word).toBe('breathe');
  });

  it('waits in free time with what the sound gives reason to say', () => {
    const free = {
      byBeat: false,
      beat: null,
      place: { ...going, group: 0, resting: true },
      live: { word: 'play', hint: 'when you are ready' },
    };
    expect(wordNow(moment(free)).word).toBe('play');
  });

  it('gives nothing away in blind work, and tells no explorer what to change', () => {
    expect(wordNow(moment({ hidden: true })).hint).toMatch(/hidden/);
    expect(wordNow(moment({ score: made('bends') })).word).toBe('listen');
  });

  it('carries the cue while all is well, and not instead of what has to change', () => {
    const score = made('octave-slurs', { cue: 'head still' });
    expect(wordNow(moment({ score, live: { word: 'hold', hint: 'just so' } })).hint).toBe('head still');
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
