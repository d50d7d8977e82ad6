import { useRouter } from 'expo-router';
import { useMemo, type ReactNode } from 'react';
import type { Seconds } from '@/core/base';
import { MistakenCard } from './MistakenCard';
import { advise, nextTempo } from '@/core/verdict/coach';
import type { Naming } from '@/core/tuning';
import { findFamily } from '@/core/music';
import type { Take } from '@/core/take';
import { putOnStand, useSettings } from '@/store';
import { Body, Button, momentText, Notice, Screen, Soft, useShape } from '@/ui';
import { ChartView } from './laterDetail';
import { Findings } from './Findings';
import { setupText } from './setupText';
import { steadyRemarks } from './steadyRemarks';
import { AdviceCard } from './AdviceCard';
import { HowToRead } from './HowToRead';
import { instrumentName } from './instrumentName';
import { useVerdict } from './useVerdict';
import { TakeStrip } from './TakeStrip';

interface TakeViewProps {
  readonly take: Take;
  /** Path of the take, to come back to from the stand. */
  readonly path: string;
  /** The way to hear it. */
  readonly hear: ReactNode;
  /** The player's remark and what else can be done with the take. */
  readonly children: ReactNode;
  readonly foot?: ReactNode;
}

/** One take for review: what happened in words, what to try, the strip, the family's drawing, the figures. */
export function TakeView({ take, path, hear, children, foot }: TakeViewProps) {
  const router = useRouter();
  const { settings } = useSettings();
  const { school, naming, readAs } = settings;
  const { judgement, verdict } = useVerdict(take);
  const advice = useMemo(
    () => advise(judgement, school, naming, readAs.pitch),
    [judgement, school, naming, readAs.pitch],
  );
  const tempo = nextTempo(judgement);
  const { wide } = useShape();
  const caption = [take.score.title, instrumentName(take), momentText(new Date(take.createdAt))].join(' · ');
  const playAt = (next: number) => {
    void putOnStand(
      { ...take.score, tempo: next, parameters: { ...take.score.parameters, tempo: next } },
      path,
    );
    router.push('/stand');
  };
  const figures = (
    <>
      {verdict.charts.map((chart, i) => (
        <ChartView key={i} chart={chart} />
      ))}
      <Findings findings={verdict.findings} />
      {take.instrument ? <HowToRead instrument={take.instrument} /> : null}
      <Soft testID="conditions">{conditionsText(take)}</Soft>
    </>
  );
  return (
    <Screen caption={caption} title={verdict.headline} foot={foot} beside={wide ? figures : null}>
      <Body testID="summary">{verdict.summary}</Body>
      {conditionRemarks(take, naming).map((remark) => (
        <Notice key={remark} text={remark} />
      ))}
      {judgement.mistaken ? <MistakenCard take={take} mistaken={judgement.mistaken} /> : null}
      {advice ? <AdviceCard advice={advice} instrument={take.instrument} from={path} /> : null}
      {tempo ? <Button label={tempo.text} onPress={() => playAt(tempo.tempo)} testID="next-tempo" /> : null}
      {judgement.notes.length > 0 ? <TakeStrip take={take} judgement={judgement} verdict={verdict} /> : null}
      {hear}
      {wide ? null : figures}
      {children}
    </Screen>
  );
}

function conditionsText({ conditions, score }: Take): string {
  const { setup, a4, temperament, headphones, sourceName } = conditions;
  return [
    `A ${a4}, ${temperament.toLowerCase()}`,
    sourceName,
    headphones ? 'headphones' : null,
    setupText(setup),
    score.cue ? `attending to: ${score.cue}` : null,
  ]
    .filter((part) => part !== null)
    .join(' · ');
}

const lasting = (seconds: Seconds) =>
  seconds < 1 ? `${Math.ceil(1000 * seconds)} ms` : `${seconds.toFixed(1)} s`;

/** What about the recording itself limits the figures. */
function conditionRemarks({ conditions, score, timing }: Take, naming: Naming): string[] {
  const remarks: string[] = [];
  if (conditions.interruption) remarks.push(conditions.interruption);
  if (conditions.source === 'simulated') remarks.push('Played by the simulated player, not by you.');
  if (timing.resumed.length > 0)
    remarks.push(
      `Played in ${timing.resumed.length + 1} stretches; what was heard before each pause counts.`,
    );
  if (conditions.processing.includes('gain-control'))
    remarks.push('The microphone kept its own gain control on, so nothing is said about loudness.');
  if (conditions.processing.includes('noise-suppression'))
    remarks.push('The microphone kept its noise removal on; air and soft beginnings may be missing.');
  if (conditions.clipped)
    remarks.push('The sound was too loud for the microphone in places. Move it away or turn it down.');
  if (conditions.lostSeconds > 0)
    remarks.push(
      `This device lost at least ${lasting(conditions.lostSeconds)} of sound, as it does when it is busy. No fault is looked for there.`,
    );
  remarks.push(...steadyRemarks(conditions.steadyHz, conditions.a4, naming));
  const caution = findFamily(score.family)?.caution;
  if (caution && score.longestSeconds !== null) remarks.push(caution);
  return remarks;
}
