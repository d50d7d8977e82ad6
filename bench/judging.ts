import { FAULTS, judge, limitsOf, type JudgedNote } from '@/core/verdict';
import { playAndJudge } from '@/core/verdict/playAndJudge.testing';
import { families, type Score } from '@/core/music';
import { findInstrument, type Instrument } from '@/core/instruments';
import { groupsOf } from '@/core/hearing/matching';
import { noFaults, steadyPlayer, type FaultRates, type Performance, simulateTake } from '@/core/lab';

/** Five instruments that differ in what matters: edge, ducted, single and double reed, high and low. */
export const FIVE = ['flute', 'bassoon', 'clarinet-bb', 'recorder-alto', 'sax-alto'];

type Truth = Pick<Performance, 'notes' | 'events'>;
/** A mode that sounds on the way this near the arrival belongs to the slur. */
const ARRIVAL_SECONDS = 0.3;

/** Which slurs went wrong in truth, by group. */
export function failedSlurs(performance: Truth, score: Score, instrument: Instrument): Set<number> {
  const failed = new Set<number>();
  const groups = groupsOf(score, instrument);
  for (const event of performance.events) {
    const group = groups.find(({ from, to }) => event.noteIndex >= from && event.noteIndex <= to);
    if (!group?.slurred || event.noteIndex !== group.from) continue;
    const start = performance.notes[event.noteIndex]!.startSeconds;
    if (
      ['gap', 'blip', 'wrong-note'].includes(event.kind) ||
      (event.kind !== 'undertone' && event.startSeconds - start < ARRIVAL_SECONDS)
    )
      failed.add(group.index);
  }
  return failed;
}

/** A wrong note that is slurred to from the very same pitch does not sound as a note of its own: such notes count as one. */
function soundedAsOne(performance: Truth, notes: readonly JudgedNote[]): JudgedNote[][] {
  const runs: JudgedNote[][] = [];
  for (const judged of notes) {
    const { from } = judged.match.group;
    const [before, here] = [performance.notes[from - 1], performance.notes[from]!];
    if (before && here.slurred && before.soundingMidi === here.soundingMidi)
      runs[runs.length - 1]!.push(judged);
    else runs.push([judged]);
  }
  return runs;
}

const FAULTY: FaultRates = { ...noFaults, gap: 0.12, blip: 0.06, break: 0.04, wrongNote: 0.03 };

/** Every family on five instruments: notes matched, slurs rightly called clean or failed. */
export function judgedFamilies(
  seeds: number,
  mostNotes: number,
  { verbose = false, chosen = families }: { verbose?: boolean; chosen?: typeof families } = {},
) {
  let asked = 0;
  let matched = 0;
  let seams = 0;
  let right = 0;
  const bad: string[] = [];
  for (const family of chosen) {
    const own = { asked: 0, matched: 0, seams: 0, right: 0 };
    for (const id of FIVE) {
      const instrument = findInstrument(id);
      const made = instrument && family.make(instrument, {}, 'steady');
      if (!instrument || !made?.ok || made.value.notes.length === 0 || made.value.company) continue;
      // A few of the notes say as much as all of them.
      const score = { ...made.value, notes: made.value.notes.slice(0, mostNotes) };
      for (let seed = 1; seed <= seeds; seed++) {
        const faults = made.value.counts.exploring ? noFaults : FAULTY;
        const played = playAndJudge(score, seed, steadyPlayer, faults);
        const failed = failedSlurs(played.performance, score, instrument);
        const runs = soundedAsOne(played.performance, played.judgement.notes);
        for (const run of runs) {
          own.asked++;
          const truth = played.performance.notes[run[0]!.match.group.from]!;
          const end = played.performance.notes[run[run.length - 1]!.match.group.to]!.endSeconds;
          const found = run.some(({ match }) => {
            const heard = match.note === null ? null : played.take.notes[match.note]!;
            const middle = heard ? (heard.startSeconds + heard.endSeconds) / 2 : -1;
            return middle > truth.startSeconds && middle < end;
          });
          if (found) own.matched++;
          else if (verbose)
            bad.push(
              `${family.id} ${id} ${seed} note ${run[0]!.match.group.index} truth ${truth.startSeconds.toFixed(2)} ${truth.soundingMidi} heard ${JSON.stringify(
                played.take.notes
                  .filter((note) => note.endSeconds > truth.startSeconds && note.startSeconds < end)
                  .map((note) => [
                    note.soundingMidi,
                    note.startSeconds.toFixed(2),
                    note.endSeconds.toFixed(2),
                  ]),
              )}`,
            );
        }
        for (const seam of played.judgement.seams) {
          if (seam.clean === null) continue;
          const previous = played.performance.notes[seam.from.group.to]!;
          const wrongBefore = previous.soundingMidi !== seam.from.group.sounding;
          if (wrongBefore) continue;
          own.seams++;
          if (failed.has(seam.to.group.index) === !seam.clean) own.right++;
          else if (verbose)
            bad.push(
              `${family.id} ${id} ${seed} seam ${seam.from.group.sounding}>${seam.to.group.sounding} truth ${failed.has(seam.to.group.index) ? 'failed' : 'clean'} said ${seam.why.map((w) => FAULTS[w.kind].word).join('; ') || 'clean'} ${JSON.stringify(seam.transition)}`,
            );
        }
      }
    }
    if (verbose)
      console.log(family.id.padEnd(20), `${own.matched}/${own.asked}`, `${own.right}/${own.seams}`);
    asked += own.asked;
    matched += own.matched;
    seams += own.seams;
    right += own.right;
  }
  if (verbose) console.log(bad.slice(0, 80).join('\n'));
  return {
    'notes matched': `${matched} of ${asked} (${((100 * matched) / asked).toFixed(2)} %)`,
    'slurs rightly judged': `${right} of ${seams} (${((100 * right) / seams).toFixed(2)} %)`,
  };
}

/** Time from the last sample of a take of about three minutes to its verdict. */
export function verdictSpeed() {
  return ['flute', 'bassoon'].map((id) => {
    const instrument = findInstrument(id);
    const made = families.find((family) => family.id === 'tendency-scan')?.make(instrument!);
    if (!instrument || !made?.ok) throw new Error(`no scan for ${id}`);
    let ended = NaN;
    const onLastSample = () => (ended = performance.now());
    const { take } = simulateTake({ score: made.value, seed: 1, onLastSample });
    judge(take, limitsOf('steady'));
    return {
      instrument: id,
      'take, s': Math.round(take.durationSeconds),
      'to the verdict, s': Number(((performance.now() - ended) / 1000).toFixed(2)),
    };
  });
}
