import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { noFaults, steadyPlayer } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import { displayName } from '@/core/tuning';
import { judge, limitsOf, say } from '.';
import { beginning, OFTEN_ENOUGH, sentencesOf } from './truth.testing';

const clarinet = findInstrument('clarinet-bb')!;

/** Names of written notes in a sentence, as they sound. */
function moved(sentence: string): string {
  const names = new Map<string, string>();
  for (let midi = 30; midi < 110; midi++)
    names.set(displayName(midi, 'english'), displayName(midi + clarinet.transposition, 'english'));
  return sentence.replace(/[A-G][♭♯]?\d/g, (name) => names.get(name)!);
}

test.each(thinned(['harmonic-climb', 'melody', 'octave-slurs', 'octave-check', 'tendency-scan'], 2))(
  'all that is said of %s names the notes as they sound, where that is asked',
  (family) => {
    const { take } = sharedTake({
      score: beginning(findFamily(family)!, clarinet, OFTEN_ENOUGH)!,
      instrument: clarinet,
      seed: 3,
      player: { ...steadyPlayer, offsetCents: 22 },
      faults: { ...noFaults, break: 0.3, wrongNote: 0.2 },
    });
    const judgement = judge(take, limitsOf('steady'));
    const written = sentencesOf(say(judgement, 'english'));
    const sounding = sentencesOf(say(judgement, 'english', 'sounding'));
    expect(sounding).toEqual(written.map(moved));
    expect(sounding).not.toEqual(written);
  },
);

test('an octave is no other name: a piccolo keeps its own, whatever another instrument is read as', () => {
  const piccolo = findInstrument('piccolo')!;
  const { take } = sharedTake({
    score: beginning(findFamily('octave-check')!, piccolo)!,
    instrument: piccolo,
    seed: 1,
    player: steadyPlayer,
  });
  const judgement = judge(take, limitsOf('steady'));
  expect(sentencesOf(say(judgement, 'english', 'sounding'))).toEqual(sentencesOf(say(judgement, 'english')));
});
