import { seamTitle } from '@/core/ledger';
import { useLocalSearchParams } from 'expo-router';
import { Body, Screen, Soft, useNoteName } from '@/ui';
import { BreakPane } from './BreakPane';
import { NotePane } from './NotePane';
import { SeamPane } from './SeamPane';
import { useMemory, useSeen } from './useMemory';
import { breakName } from './words';

/** What a page of the map is told by its address. */
function useAddress(): { instrument: string | null; of: string; view: 'mode' | 'hand' } {
  const { instrument, of, view } = useLocalSearchParams<{
    instrument?: string;
    of?: string;
    view?: string;
  }>();
  return { instrument: instrument ?? null, of: of ?? '', view: view === 'hand' ? 'hand' : 'mode' };
}

const Opening = () => (
  <Screen caption="Map" title="From your takes">
    <Soft>Reading the log …</Soft>
  </Screen>
);

const Nowhere = ({ what }: { what: string }) => (
  <Screen caption="Map" title="Not on this instrument">
    <Body>{what}</Body>
  </Screen>
);

export function NoteScreen() {
  const { instrument, of } = useAddress();
  const nameOf = useNoteName();
  const { memory } = useMemory(instrument);
  const seen = useSeen(memory);
  if (!memory || !seen) return <Opening />;
  const written = Number(of);
  if (!seen.map.notes.some((each) => each.written === written))
    return <Nowhere what={`There is no such note on the ${memory.instrument.name}.`} />;
  return (
    <Screen caption={`Map · ${memory.instrument.name}`} title={nameOf(written)}>
      <NotePane memory={memory} seen={seen} written={written} />
    </Screen>
  );
}

export function SeamScreen() {
  const { instrument, of } = useAddress();
  const nameOf = useNoteName();
  const { memory } = useMemory(instrument);
  if (!memory) return <Opening />;
  const [from = NaN, to = NaN] = of.split('-').map(Number);
  if (Number.isNaN(from) || Number.isNaN(to)) return <Nowhere what="There is no such slur." />;
  return (
    <Screen caption={`Map · ${memory.instrument.name}`} title={seamTitle(from, to, nameOf)}>
      <SeamPane memory={memory} played={memory.played} from={from} to={to} />
    </Screen>
  );
}

export function BreakScreen() {
  const { instrument, of, view } = useAddress();
  const nameOf = useNoteName();
  const { memory } = useMemory(instrument);
  const seen = useSeen(memory, undefined, view);
  if (!memory || !seen) return <Opening />;
  const place = seen.breaks.find(({ above }) => above === Number(of));
  if (!place) return <Nowhere what={`The ${memory.instrument.name} has no break there.`} />;
  return (
    <Screen
      caption={`Map · ${memory.instrument.name} · ${breakName(memory.instrument, place.above)}`}
      title={`${nameOf(place.below)} to ${nameOf(place.above)}`}
    >
      <BreakPane memory={memory} place={place} />
    </Screen>
  );
}
