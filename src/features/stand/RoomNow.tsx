import { useEffect } from 'react';
import { View } from 'react-native';
import type { Instrument } from '@/core/instruments';
import { findFamily, type Score } from '@/core/music';
import type { Take } from '@/core/take';
import type { Settings } from '@/store';
import { Body, Heading, Notice, Soft, useNoteName } from '@/ui';
import { useStand } from './useStand';

interface RoomNowProps {
  readonly instrument: Instrument;
  readonly settings: Settings;
  /** The check is over. */
  readonly onDone: (take: Take) => void;
}

/** The room check in the middle of another page: it begins at once and ends by itself. */
export function RoomNow({ instrument, ...props }: RoomNowProps) {
  const made = findFamily('room-check')?.make(instrument);
  return made?.ok ? <Checking score={made.value} instrument={instrument} {...props} /> : null;
}

function Checking({ score, instrument, settings, onDone }: RoomNowProps & { readonly score: Score }) {
  const { engine, state } = useStand({ score, instrument, settings, running: null, onDone });
  const nameOf = useNoteName();
  useEffect(() => {
    engine.start();
    return () => engine.cancel();
  }, [engine]);
  if (state.problem) return <Notice problem text={state.problem} />;
  return (
    <View aria-live="polite" testID="room-now">
      <Heading>{state.word}</Heading>
      <Soft>{state.hint}</Soft>
      <Body>{`The note is ${nameOf(score.notes[0]!.written)}, as loud as you ordinarily play.`}</Body>
    </View>
  );
}
