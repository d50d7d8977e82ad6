import { useEffect } from 'react';
import { View } from 'react-native';
import { findFamily, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import type { Settings } from '@/store';
import { Heading, Notice, Soft } from '@/ui';
import { useStand } from './useStand';

interface ListenNowProps {
  readonly instrument: Instrument;
  readonly settings: Settings;
  /** A note was heard. */
  readonly onHeard: () => void;
}

/** Listens and says at once what it hears; nothing of it is kept. */
export function ListenNow({ instrument, ...props }: ListenNowProps) {
  const made = findFamily('free-playing')?.make(instrument);
  return made?.ok ? <Listening score={made.value} instrument={instrument} {...props} /> : null;
}

function Listening({ score, instrument, settings, onHeard }: ListenNowProps & { readonly score: Score }) {
  const { engine, state } = useStand({
    score,
    instrument,
    settings,
    running: null,
    onDone: () => undefined,
  });
  useEffect(() => {
    engine.start();
    return () => engine.cancel();
  }, [engine]);
  const { sounding, phase, problem } = state;
  useEffect(() => {
    if (sounding !== null) onHeard();
  }, [sounding, onHeard]);
  if (problem) return <Notice problem text={problem} />;
  return (
    <View aria-live="polite" testID="listening">
      <Heading>
        {phase === 'playing' ? (sounding === null ? 'Play a note' : state.word) : 'One moment'}
      </Heading>
      <Soft>{sounding === null ? 'It is listening.' : state.hint}</Soft>
    </View>
  );
}
