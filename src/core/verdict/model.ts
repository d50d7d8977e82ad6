import { median } from '@/core/base';
import { comparable, modelOf } from '@/core/music';
import { displayName } from '@/core/tuning';
import type { Part } from './part';
import { nameOf, playedNotes, type Reading } from './reading';
import { differenceWord, distanceOf, type Distance } from './sameness';
import { fixed, listed } from './words';

const ABOUT = {
  id: 'model',
  label: 'From the model',
  unit: 'steps',
  meaning:
    'Brightness, richness, air and balance of odd and even partials, each in steps that are about just noticed; the root mean square of them. Level is left out, and another microphone and room colour the sound too: trust the direction more than the number.',
} as const;

/** How far one's own colour is from that of a note in a recording, and in what. */
export function modelPart(reading: Reading): Part {
  const model = modelOf(reading.score);
  if (!model)
    return unknown(
      'No model was chosen: choose a recording on the page of this exercise, and the note in it.',
    );
  const rows = playedNotes(reading).flatMap(({ match, note }, i) => {
    if (!comparable(model, note.soundingMidi)) return [];
    const { steps, parts } = distanceOf({ ...note, levelDb: null }, { ...model, levelDb: null });
    return steps === null ? [] : [{ name: `${i + 1}: ${nameOf(match.group)}`, distance: steps, parts }];
  });
  const first = rows[0];
  if (!first) {
    const name = displayName(model.soundingMidi - reading.instrument.transposition);
    return unknown(
      playedNotes(reading).length === 0
        ? 'No note was heard to hold against the model.'
        : `The model plays ${name}, and no note near it was heard long enough: play the same note.`,
    );
  }
  const last = rows[rows.length - 1]!;
  const typical = median(rows.map((row) => row.distance));
  const said = differences(rows);
  const moved =
    rows.length > 1 && Math.abs(last.distance - first.distance) > 0.5
      ? ` It ${last.distance < first.distance ? 'came nearer' : 'went away'} from the first time to the last.`
      : '';
  return {
    findings: [
      {
        ...ABOUT,
        value: fixed(typical, 1),
        sentence: `${said.length === 0 ? 'Of one colour with the model.' : `Against the model: ${listed(said)}.`}${moved}`,
      },
    ],
    faults: [],
    headline: {
      text:
        said[0] === undefined
          ? 'Like the model'
          : `${said[0][0]!.toUpperCase()}${said[0].slice(1)} than the model`,
      weight: 2,
    },
    drawing: { kind: 'sameness', reference: 'the model', notes: rows },
  };
}

/** Smaller than this, and it is not heard. */
const HEARD_STEPS = 1;
const MOST_SAID = 2;

/** In what the notes differ from the model all together, most first. */
function differences(rows: readonly Pick<Distance, 'parts'>[]): string[] {
  const names = [...new Set(rows.flatMap(({ parts }) => parts.map((part) => part.name)))];
  return names
    .map((name) => ({
      name,
      steps: median(
        rows.flatMap(({ parts }) => parts.filter((part) => part.name === name)).map((part) => part.steps),
      ),
    }))
    .filter(({ steps }) => Math.abs(steps) > HEARD_STEPS)
    .sort((a, b) => Math.abs(b.steps) - Math.abs(a.steps))
    .slice(0, MOST_SAID)
    .map(differenceWord);
}

const unknown = (sentence: string): Part => ({
  findings: [{ ...ABOUT, value: null, sentence }],
  faults: [],
  headline: { text: 'No model to compare with', weight: 1 },
});
