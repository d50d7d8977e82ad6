import { YIN } from 'pitchfinder';
import { PitchDetector } from 'pitchy';
import { findInstrument, listeningRange } from '@/core/instruments';
import { hearNotes } from '@/core/hearing/notes';
import { Listener } from '@/core/hearing/signal';
import { randomFigure } from '@/core/lab';
import { play, RATE } from './takes';

const WINDOW = 2048;

const RUNS = 6;

const once = (work: () => void) => {
  const start = performance.now();
  work();
  return performance.now() - start;
};
/**
 * The best of a few runs of each, taking turns: what else the machine does can only add to them, and where its clock
 * drifts it drifts for all.
 */
function milliseconds<const T extends readonly (() => void)[]>(...works: T): { [K in keyof T]: number } {
  const best = works.map(() => Infinity);
  for (let run = 0; run < RUNS; run++) works.forEach((work, k) => (best[k] = Math.min(best[k]!, once(work))));
  return best as { [K in keyof T]: number };
}

/** Time for the whole analysis against f0 alone by two packages at the same hop, on the same samples. */
export function speedTable() {
  return ['flute', 'recorder-alto', 'oboe', 'clarinet-bb', 'bassoon', 'contrabassoon'].map((id) => {
    const instrument = findInstrument(id);
    if (!instrument) throw new Error(id);
    const { audio } = play(instrument, randomFigure(instrument, 7, 20), 7);
    const analyse = () => {
      const listener = new Listener(RATE, listeningRange(instrument));
      listener.push(audio);
      hearNotes(listener.finish(), instrument);
    };
    const { hop } = new Listener(RATE, listeningRange(instrument)).settings;
    const hops = Math.floor((audio.length - WINDOW) / hop);
    const detector = PitchDetector.forFloat32Array(WINDOW);
    const yin = YIN({ sampleRate: RATE });
    const few = Math.min(hops, 400);
    const [ours, pitchy, fewByYin] = milliseconds(
      analyse,
      () => {
        for (let i = 0; i < hops; i++) detector.findPitch(audio.subarray(i * hop, i * hop + WINDOW), RATE);
      },
      () => {
        for (let i = 0; i < few; i++) yin(audio.subarray(i * hop, i * hop + WINDOW));
      },
    );
    const pitchfinder = (fewByYin * hops) / few;
    return {
      instrument: id,
      'ms a second of audio': Number(((ours * RATE) / audio.length).toFixed(1)),
      'share of pitchy (f0 alone)': Number((ours / pitchy).toFixed(3)),
      'share of pitchfinder YIN': Number((ours / pitchfinder).toFixed(4)),
    };
  });
}

/** Cost a minute of audio as takes get longer: it must not grow. */
export function growthTable() {
  const instrument = findInstrument('oboe');
  if (!instrument) throw new Error('oboe');
  const { audio } = play(instrument, randomFigure(instrument, 9, 70), 9);
  const minute = audio.subarray(0, 55 * RATE);
  return [1, 3, 10].map((minutes) => {
    const [ms] = milliseconds(() => {
      const listener = new Listener(RATE, listeningRange(instrument));
      for (let i = 0; i < minutes; i++) listener.push(minute);
      hearNotes(listener.finish(), instrument);
    });
    return { minutes, 'ms a minute': Math.round(ms / minutes) };
  });
}
