import type { Note } from '@/core/hearing/notes';
import { asksLevel, spoilsNext, type JudgedSeam, type Judgement } from '@/core/verdict';
import { CRACKS, HELD_AGAINST, isBeyond, type Crossing, type Measured } from './crossing';

/** A slur of a judged take; none where the player had stopped before it. */
export function crossingOf(seam: JudgedSeam, judgement: Judgement, notes: readonly Note[]): Crossing[] {
  const { from, to, transition, why, spreadDb, blurSeconds } = seam;
  if (from.state === 'unplayed' || to.state === 'unplayed') return [];
  const asked = judgement.score.notes[to.group.from]!;
  if (asked.fingered !== null || judgement.score.notes[from.group.from]!.fingered !== null) return [];
  const counts = (id: 'interval' | 'seam') => judgement.score.counts.measures.includes(id);
  const measured: Record<Measured, number | null> = {
    dipDb: transition?.dipDb ?? null,
    bumpDb: transition?.bumpDb ?? null,
    slurMs: transition?.seconds == null ? null : 1000 * Math.max(0, transition.seconds - blurSeconds),
    overshootCents: seam.overshootCents,
    stepDb: asksLevel(judgement, seam) ? (transition?.levelStepDb ?? null) : null,
    intervalCents: counts('interval') ? seam.errorCents : null,
  };
  const spoilt = judgement.faults.some(({ kind, group }) => group === from.group.index && spoilsNext(kind));
  if (spoilt) for (const { of } of HELD_AGAINST) measured[of] = null;
  // Beyond its limit and yet no fault: something else, before or in the notes, accounts for it. It is not held against the slur, now or later.
  if (why.length === 0)
    for (const { of, limit, blur } of HELD_AGAINST)
      if (isBeyond(measured[of], judgement.limits[limit], blur(spreadDb))) measured[of] = null;
  const crack = why.find(
    ({ kind, amount }) => amount === null || CRACKS.some((each) => each === kind && each !== 'hole'),
  );
  return [
    {
      from: from.group.written,
      to: to.group.written,
      dynamic: asked.dynamic,
      atSeconds: to.note === null ? 0 : notes[to.parts[0] ?? to.note]!.startSeconds,
      heard: from.note !== null && to.note !== null,
      cracked: crack !== undefined,
      crackedBy: CRACKS.find((kind) => kind === crack?.kind) ?? null,
      spreadDb,
      ...measured,
    },
  ];
}
