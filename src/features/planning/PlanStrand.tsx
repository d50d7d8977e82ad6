import { useMemo, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  isRest,
  minutesText,
  sayBlock,
  sayWhy,
  scoreOfBlock,
  titleOfBlock,
  weekdayOf,
  type Block,
  type CivilDay,
} from '@/core/plan';
import type { Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import { Body, Heading, Soft, useNoteName } from '@/ui';
import { StrandLine } from './StrandLine';

interface PlanStrandProps {
  readonly blocks: readonly Block[];
  readonly instrument: Instrument;
  readonly today: CivilDay;
  /** What can be done with a block. */
  readonly tools?: (block: Block, at: number) => ReactNode;
}

const PER_MINUTE = 19;
const LEAST = 58;

/** A day as one upright thread: its blocks as long as their minutes, each with its reason. */
export function PlanStrand({ blocks, instrument, today, tools }: PlanStrandProps) {
  return (
    <View role="list" style={styles.strand}>
      {blocks.map((block, i) => (
        <Row key={block.id} block={block} at={i} instrument={instrument} today={today}>
          {tools?.(block, i)}
        </Row>
      ))}
    </View>
  );
}

function Row({
  block,
  at,
  instrument,
  today,
  children,
}: {
  block: Block;
  at: number;
  instrument: Instrument;
  today: CivilDay;
  children: ReactNode;
}) {
  const nameOf = useNoteName();
  const { settings } = useSettings();
  const { level, naming } = settings;
  const score = useMemo(
    () => (isRest(block) ? null : scoreOfBlock(block, instrument, level, naming)),
    [block, instrument, level, naming],
  );
  const height = isRest(block) ? 44 : Math.max(LEAST, (PER_MINUTE * block.seconds) / 60);
  const isSeam = 'from' in block.why;
  const look = block.skipped ? 'skipped' : isRest(block) ? 'rest' : isSeam ? 'seam' : 'plain';
  const why = sayWhy(block.why, nameOf, weekdayOf(today));
  if (isRest(block))
    return (
      <View role="listitem" style={[styles.row, styles.centred]}>
        <StrandLine height={height} look="rest" place={at} />
        <Soft style={styles.words}>rest the lip, drink</Soft>
        <Soft>{minutesText(block.seconds)}</Soft>
        {children}
      </View>
    );
  return (
    <View role="listitem" style={styles.row} testID="planned-block">
      <StrandLine height={height} look={look} place={at} />
      <View style={styles.words}>
        <View style={styles.head}>
          <Heading style={styles.words}>
            {block.skipped ? `${titleOfBlock(block)}, left out` : titleOfBlock(block)}
          </Heading>
          <Body style={styles.minutes}>{minutesText(block.seconds)}</Body>
        </View>
        {score?.ok ? <Soft>{sayBlock(block, score.value, nameOf)}</Soft> : null}
        {score && !score.ok ? <Soft>{`Cannot be played as it is: ${score.problem}.`}</Soft> : null}
        <Soft testID="why">{why}</Soft>
        {children}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  strand: { gap: 10 },
  row: { flexDirection: 'row', gap: 12 },
  centred: { alignItems: 'center' },
  words: { flex: 1, minWidth: 0 },
  head: { flexDirection: 'row', gap: 10, alignItems: 'baseline' },
  minutes: { fontWeight: '700' },
});
