import { StyleSheet, View } from 'react-native';
import { openersOf, type MappedBreak, seamTitle } from '@/core/ledger';
import { useDrill } from '@/features/library';
import { Body, Button, Heading, RowLink, Soft, useNoteName, usePalette } from '@/ui';
import type { Memory } from './useMemory';
import { countWord, openerWord, reliabilitySentence, STATE_WORDS } from './words';

/** A break: how all that was slurred over it held, then its seams, the weakest first. */
export function BreakPane({ memory, place }: { memory: Memory; place: MappedBreak }) {
  const palette = usePalette();
  const nameOf = useNoteName();
  const drill = useDrill();
  const opener = openersOf(place.seams.flatMap(({ crossed }) => crossed))[0];
  const weakest = place.seams[0];
  const [from, to] = weakest ? [weakest.from, weakest.to] : [place.below, place.above];
  return (
    <View style={styles.pane} testID="break-pane">
      <View>
        <Body>{reliabilitySentence(place.reliability)}</Body>
        {opener ? <Soft>{`What opens it most often: ${openerWord(opener.kind)}.`}</Soft> : null}
      </View>
      <Button
        look="strong"
        label={`Drill ${seamTitle(from, to, nameOf)}`}
        testID="drill-break"
        onPress={() => drill(memory.instrument.id, 'just-this-seam', { from, to, times: 8 })}
      />
      {place.seams.length > 0 ? (
        <View>
          <Heading>Slurs over it, the weakest first</Heading>
          {place.seams.map((seam) => (
            <RowLink
              key={`${seam.from}-${seam.to}`}
              href={`/map/seam/${seam.from}-${seam.to}?instrument=${memory.instrument.id}`}
              testID="seam-row"
              style={[styles.row, { borderBottomColor: palette.hairline }]}
            >
              <Body style={styles.grow}>{seamTitle(seam.from, seam.to, nameOf)}</Body>
              <Body>{countWord(seam.reliability)}</Body>
              <Soft style={styles.state}>{STATE_WORDS[seam.state]}</Soft>
            </RowLink>
          ))}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  pane: { gap: 18 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 12, borderBottomWidth: 1 },
  grow: { flex: 1 },
  state: { width: 92, textAlign: 'right' },
});
