import type { ReactNode } from 'react';
import { assessLongTone } from '@/core/assess';
import { findInstrument } from '@/core/instruments';
import type { Take } from '@/core/take';
import { momentText } from '../dates';
import { Notice } from '../notice';
import { Screen } from '../screen';
import { Body } from '../text';
import { useShape } from '../theme';
import { Findings } from './Findings';
import { Strip } from './Strip';

interface TakeViewProps {
  readonly take: Take;
  /** The way to hear it. */
  readonly hear: ReactNode;
  /** The player's remark and what else can be done with the take. */
  readonly children: ReactNode;
  readonly foot?: ReactNode;
}

export function verdictOf(take: Take) {
  return assessLongTone(
    take.score,
    { notes: take.notes, events: take.events, floorDb: take.conditions.floorDb },
    take.timing,
  );
}

/** One take for review: what happened in words, the drawing, then the figures. */
export function TakeView({ take, hear, children, foot }: TakeViewProps) {
  const verdict = verdictOf(take);
  const instrument = findInstrument(take.score.instrumentId)?.name ?? take.score.instrumentId;
  const caption = [take.score.title, instrument.toLowerCase(), momentText(new Date(take.createdAt))].join(
    ' · ',
  );
  const { wide } = useShape();
  const findings = <Findings findings={verdict.findings} />;
  return (
    <Screen caption={caption} title={verdict.headline} foot={foot} beside={wide ? findings : null}>
      <Body testID="summary">{verdict.summary}</Body>
      {conditionRemarks(take).map((remark) => (
        <Notice key={remark} text={remark} />
      ))}
      {take.notes.length > 0 ? <Strip take={take} height={wide ? 200 : 150} scale /> : null}
      {hear}
      {wide ? null : findings}
      {children}
    </Screen>
  );
}

/** What about the recording itself limits the figures. */
function conditionRemarks({ conditions }: Take): string[] {
  const remarks: string[] = [];
  if (conditions.interruption) remarks.push(conditions.interruption);
  if (conditions.source === 'simulated') remarks.push('Played by the simulated player, not by you.');
  if (conditions.processing.includes('gain-control')) {
    remarks.push('The microphone kept its own gain control on, so nothing is said about loudness.');
  }
  if (conditions.processing.includes('noise-suppression')) {
    remarks.push('The microphone kept its noise removal on; air and soft beginnings may be missing.');
  }
  if (conditions.clipped)
    remarks.push('The sound was too loud for the microphone in places. Move it away or turn it down.');
  return remarks;
}
