import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { ANYTHING, asksAnything, offeredIn, type Entry, type LogQuery } from '@/core/ledger';
import { FAULTS, type FaultKind } from '@/core/verdict';
import { Button, Choice, fonts, Soft, usePalette } from '@/ui';
import { NoteFilters } from './NoteFilters';

interface LogFiltersProps {
  /** All that can be looked for. */
  readonly entries: readonly Entry[];
  readonly query: LogQuery;
  readonly onChange: (query: LogQuery) => void;
}

const ANY = '';
const OFFERED_FOR_ONE = { heard: null, seam: null, family: null, fault: null, reed: null, cue: null };

/** One line to look for words, and what else can be asked behind it. */
export function LogFilters({ entries, query, onChange }: LogFiltersProps) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const { instruments } = offeredIn(entries);
  const { instrumentId } = query;
  const offered = offeredIn(
    instrumentId === null ? entries : entries.filter((each) => each.instrumentId === instrumentId),
  );
  const set = (part: Partial<LogQuery>) => onChange({ ...query, ...part });
  const choose = (
    key: 'instrumentId' | 'family' | 'fault' | 'reed' | 'cue',
    label: string,
    options: readonly { id: string; name: string }[],
  ) =>
    options.length < 2 && query[key] === null ? null : (
      <Choice
        label={label}
        value={query[key] ?? ANY}
        options={[
          { value: ANY, label: 'any' },
          ...options.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(value) =>
          set({
            [key]: value === ANY ? null : value,
            // What else is asked was offered for another instrument.
            ...(key === 'instrumentId' ? OFFERED_FOR_ONE : {}),
          })
        }
      />
    );
  const plain = (ids: readonly string[]) => ids.map((id) => ({ id, name: id }));
  return (
    <View style={styles.block}>
      <View style={styles.line}>
        <TextInput
          aria-label="Look for words in the log"
          placeholder="Look for words"
          placeholderTextColor={palette.softInk}
          value={query.text}
          onChangeText={(text) => set({ text })}
          testID="log-search"
          style={[
            styles.search,
            { borderColor: palette.hairline, color: palette.ink, backgroundColor: palette.leaf },
          ]}
        />
        <Button label={open ? 'Fewer' : 'More'} testID="log-more" onPress={() => setOpen(!open)} />
      </View>
      {open ? (
        <View style={styles.block}>
          {choose('instrumentId', 'Instrument', instruments)}
          {choose('family', 'Exercise', offered.families)}
          {choose(
            'fault',
            'With',
            offered.faults.flatMap((id) =>
              id in FAULTS ? [{ id, name: FAULTS[id as FaultKind].word }] : [],
            ),
          )}
          {instrumentId === null && instruments.length > 1 ? (
            <Soft>Choose an instrument to look for one of its notes or seams.</Soft>
          ) : (
            <NoteFilters
              instrumentId={instrumentId ?? instruments[0]?.id ?? ''}
              query={query}
              notes={offered.notes}
              onChange={set}
            />
          )}
          {choose('reed', 'Reed or set-up', plain(offered.reeds))}
          {choose('cue', 'Attending to', plain(offered.cues))}
          <View style={styles.line}>
            <Button
              label={query.remarked ? 'With a remark ✓' : 'With a remark'}
              onPress={() => set({ remarked: !query.remarked })}
            />
            <Button
              label={query.withSound ? 'With sound ✓' : 'With sound'}
              onPress={() => set({ withSound: !query.withSound })}
            />
          </View>
        </View>
      ) : null}
      {asksAnything(query) ? (
        <Button look="quiet" label="All of the log" testID="log-all" onPress={() => onChange(ANYTHING)} />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  block: { gap: 10 },
  line: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
  search: {
    flex: 1,
    minWidth: 160,
    minHeight: 48,
    borderWidth: 1,
    borderRadius: 16,
    paddingHorizontal: 14,
    fontFamily: fonts.text,
    fontSize: 17,
  },
});
