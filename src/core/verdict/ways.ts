import { median } from '@/core/base';
import { NOTHING, type Part } from './part';
import { playedNotes, type Reading } from './reading';
import type { JudgedSeam } from './seams';
import { distanceOf } from './sameness';
import { fixed } from './words';

/** The same row in several ways: attacks against each other, bodies against each other, the slurs of each. */
export function waysPart(reading: Reading, seams: readonly JudgedSeam[]): Part {
  const { score, limits } = reading;
  const wayOf = new Map<number, string>();
  const names: string[] = [];
  let now = '';
  score.notes.forEach((note, i) => {
    if (note.label) {
      now = note.label;
      names.push(now);
    }
    wayOf.set(i, now);
  });
  const pairs = playedNotes(reading);
  const known = (values: readonly (number | null)[]) => {
    const value = median(values.filter((each) => each !== null));
    return Number.isFinite(value) ? value : null;
  };
  const of = (name: string) => pairs.filter(({ match }) => wayOf.get(match.group.from) === name);
  const ways = names.map((name) => {
    const mine = of(name).map(({ note }) => note);
    const slurs = seams.filter((seam) => wayOf.get(seam.to.from) === name && seam.clean !== null);
    return {
      name,
      rise: known(
        of(name)
          .filter(({ match }) => !match.group.slurred)
          .map(({ note }) => note.attack.riseSeconds),
      ),
      levelDb: known(mine.map((note) => note.levelDb)),
      brightness: known(mine.map((note) => note.brightness)),
      cents: known(mine.map((note) => note.centreCents)),
      cleanSlurs: slurs.length > 0 ? `${slurs.filter((seam) => seam.clean).length} of ${slurs.length}` : null,
    };
  });
  if (ways.length < 2) return NOTHING;
  const tongued = of('tongued').map(({ note }) => note);
  const back = of('back of the tongue only').map(({ note }) => note);
  const breath = of('breath only').map(({ note }) => note);
  const unlike = (notes: typeof tongued) =>
    known(notes.map((note, i) => (tongued[i] ? distanceOf(note, tongued[i]).steps : null)));
  const [bodyBack, bodyBreath] = [unlike(back), unlike(breath)];
  const rises = ways.map((way) => way.rise);
  const apart =
    rises[0] != null && rises[1] != null && names[1] === 'back of the tongue only'
      ? 1000 * Math.abs(rises[0] - rises[1])
      : null;
  return {
    findings: [
      ...(apart === null
        ? []
        : [
            {
              id: 'two-tongues',
              label: 'Two tongued attacks',
              value: fixed(apart, 0),
              unit: 'ms apart in their rise',
              sentence:
                apart < 15 && (bodyBack ?? 0) < limits.samenessSteps
                  ? 'Not to be told apart.'
                  : 'They can be told apart.',
              meaning:
                'The rise of notes tongued with the tip and with the back of the tongue; they are to be indistinguishable.',
            },
          ]),
      ...(bodyBreath === null
        ? []
        : [
            {
              id: 'breath-body',
              label: 'Body without the tongue',
              value: fixed(bodyBreath, 1),
              unit: 'steps from the tongued',
              sentence:
                bodyBreath < limits.samenessSteps
                  ? 'The same tone once it sounds.'
                  : 'Another tone: the tongue was doing more than begin it.',
              meaning:
                'Distance of the bodies of the breath-only notes from the tongued ones. Their beginnings may differ.',
            },
          ]),
    ],
    faults: [],
    drawing: { kind: 'ways', ways },
  };
}
