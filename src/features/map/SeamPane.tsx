import { StyleSheet, View } from 'react-native';
import { useMemo } from 'react';
import type { Midi } from '@/core/base';
import {
  alongside,
  changesIn,
  isCovered,
  LOUDNESSES,
  loudnessOf,
  openersOf,
  reliability,
  seamHistory,
  stretchesOf,
  turnsOf,
  type Crossed,
  type Played,
  turnSentence,
} from '@/core/ledger';
import { capital } from '@/core/base';
import { useDrill } from '@/features/library';
import { Body, Button, Heading, Soft, useNoteName, wholeDay } from '@/ui';
import { SeamThread } from './SeamThread';
import { TakeRows } from './TakeRows';
import type { Memory } from './useMemory';
import { countWord, openerWord, reliabilitySentence, STATE_WORDS } from './words';

interface SeamPaneProps {
  readonly memory: Memory;
  readonly played: readonly Played[];
  readonly from: Midi;
  readonly to: Midi;
}

/** One seam: how it stands, how it came there, what opens it, when, and what went along with it. */
export function SeamPane({ memory, played, from, to }: SeamPaneProps) {
  const { instrument, limits, now } = memory;
  const nameOf = useNoteName();
  const drill = useDrill();
  const seam = useMemo(() => seamHistory(played, from, to, limits, now), [played, from, to, limits, now]);
  const turn = useMemo(
    () => turnsOf(memory.played, instrument, limits).findLast((each) => each.from === from && each.to === to),
    [memory, instrument, limits, from, to],
  );
  const back = useMemo(() => seamHistory(played, to, from, limits, now), [played, from, to, limits, now]);
  const { crossed } = seam;
  const rang = crossed.filter(({ crossing }) => isCovered(crossing)).length;
  const setTo = (family: string, values: Readonly<Record<string, unknown>>) =>
    drill(instrument.id, family, values);
  return (
    <View style={styles.pane} testID="seam-pane">
      <View>
        <Body testID="seam-holds">{reliabilitySentence(seam.reliability)}</Body>
        <Soft>{crossed.length === 0 ? '' : capital(STATE_WORDS[seam.state])}</Soft>
        {back.crossed.length > 0 ? (
          <Soft>{`The other way: clean ${countWord(back.reliability)}, ${STATE_WORDS[back.state]}.`}</Soft>
        ) : null}
        {rang > 0 ? (
          <Soft>{`At least ${rang} of these were played where the room rings: short holes and cracks are not all heard there, so it may hold less well than this.`}</Soft>
        ) : null}
        {turn ? <Body testID="turn">{`${wholeDay(turn.day)}: ${turnSentence(turn, nameOf)}`}</Body> : null}
      </View>
      {crossed.length > 0 ? <Mending crossed={crossed} played={played} /> : null}
      <Openers crossed={crossed} />
      {crossed.length > 0 ? <ByLoudness crossed={crossed} now={now} /> : null}
      <Along crossed={crossed} onCompare={() => setTo('comparison', {})} />
      <View style={styles.row}>
        <Button
          look="strong"
          label="Drill it"
          testID="drill-seam"
          onPress={() => setTo('just-this-seam', { from, to, times: 8 })}
        />
        <Button label="The other way" onPress={() => setTo('just-this-seam', { from: to, to: from })} />
      </View>
      <TakeRows
        title="Its takes"
        rows={byTake(crossed).map(({ take, clean, of }) => ({ take, text: `${clean} of ${of} clean` }))}
      />
    </View>
  );
}

function Mending({ crossed, played }: { crossed: readonly Crossed[]; played: readonly Played[] }) {
  const stretches = useMemo(() => stretchesOf(crossed, 8), [crossed]);
  const changes = useMemo(
    () => changesIn(played).filter(({ of }) => of === 'reed' || of === 'cue'),
    [played],
  );
  const spoken = stretches.map(({ clean, of }) => `${clean} of ${of}`).join(', ');
  return (
    <View>
      <Heading>How it was mended</Heading>
      <SeamThread stretches={stretches} changes={changes} label={`Clean crossings over time: ${spoken}`} />
    </View>
  );
}

function Openers({ crossed }: { crossed: readonly Crossed[] }) {
  const openers = openersOf(crossed);
  if (openers.length === 0) return null;
  return (
    <View>
      <Heading>What opens it</Heading>
      {openers.slice(0, 5).map(({ kind, count }) => (
        <View key={kind} style={styles.line}>
          <Body style={styles.grow}>{openerWord(kind)}</Body>
          <Body>{count === 1 ? 'once' : `${count} times`}</Body>
        </View>
      ))}
    </View>
  );
}

function ByLoudness({ crossed, now }: { crossed: readonly Crossed[]; now: number }) {
  return (
    <View>
      <Heading>When</Heading>
      {LOUDNESSES.map((loudness) => {
        const here = crossed.filter(({ crossing }) => loudnessOf(crossing.dynamic) === loudness);
        const found = reliability(
          here.map(({ take, clean }) => ({ clean, day: take.day, take: take.entry.id })),
          now,
        );
        return (
          <View key={loudness} style={styles.line}>
            <Body style={styles.grow}>{loudness}</Body>
            <Body>{here.length === 0 ? 'not tried' : countWord(found)}</Body>
          </View>
        );
      })}
    </View>
  );
}

const OF_WORDS = { cue: 'Attending to', reed: 'On', room: 'In' } as const;

function Along({ crossed, onCompare }: { crossed: readonly Crossed[]; onCompare: () => void }) {
  const pairs = useMemo(() => alongside(crossed), [crossed]);
  if (pairs.length === 0) return null;
  return (
    <View>
      <Heading>What went along with it</Heading>
      {pairs.slice(0, 2).map((pair) => (
        <View key={pair.of + pair.told}>
          <Body>{`${OF_WORDS[pair.of]} ${pair.told}: ${countWordOf(pair.with)}, else ${countWordOf(pair.without)}.`}</Body>
          <Soft>
            {pair.byChance
              ? 'Perhaps by chance; a comparison would tell.'
              : 'More than chance would make. What else differed on those days is not known; a comparison would tell.'}
          </Soft>
        </View>
      ))}
      <Button look="quiet" label="Set up a comparison" onPress={onCompare} />
    </View>
  );
}

const countWordOf = ({ clean, of }: { clean: number; of: number }) => `${clean} of ${of}`;

/** Newest first. */
function byTake(crossed: readonly Crossed[]): { take: Played; clean: number; of: number }[] {
  const takes = new Map<Played, { take: Played; clean: number; of: number }>();
  for (const { take, clean } of crossed) {
    const row = takes.get(take) ?? { take, clean: 0, of: 0 };
    takes.set(take, { take, clean: row.clean + Number(clean), of: row.of + 1 });
  }
  return [...takes.values()].reverse();
}

const styles = StyleSheet.create({
  pane: { gap: 20 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  line: { flexDirection: 'row', gap: 12 },
  grow: { flex: 1 },
});
