import { useMemo } from 'react';
import { asRead, isTransposing, type MusicReading, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import { Choice, Soft, useNoteName } from '@/ui';

/** Music as the player chose to read it. */
export function useAsRead(score: Score, instrument: Instrument): { score: Score; instrument: Instrument } {
  const { reading } = useSettings().settings;
  return useMemo(() => asRead(score, instrument, reading), [score, instrument, reading]);
}

interface HowToReadProps {
  readonly instrument: Instrument;
  /** Clefs are a matter of music, not of names. */
  readonly clefs?: boolean;
}

/** Written or sounding pitch, where these have different names; and the clef of high phrases, where there are two. */
export function HowToRead({ instrument, clefs = false }: HowToReadProps) {
  const nameOf = useNoteName();
  const {
    settings: { reading },
    change,
  } = useSettings();
  const { home, transposition, clef, upperClef } = instrument;
  return (
    <>
      {isTransposing(instrument) ? (
        <Choice<MusicReading['pitch']>
          label="Names of the notes"
          value={reading.pitch}
          onChange={(pitch) => void change({ reading: { ...reading, pitch } })}
          options={[
            { value: 'written', label: `as written: ${nameOf(home)}` },
            { value: 'sounding', label: `as it sounds: ${nameOf(home + transposition)}` },
          ]}
        />
      ) : null}
      {isTransposing(instrument) && reading.pitch === 'sounding' ? (
        <Soft>For reading only: the stand, sheets and files keep to what is written.</Soft>
      ) : null}
      {clefs && upperClef ? (
        <Choice
          label="High phrases"
          value={reading.oneClef ? 'one' : 'two'}
          onChange={(value) => void change({ reading: { ...reading, oneClef: value === 'one' } })}
          options={[
            { value: 'two', label: `${upperClef.clef} clef` },
            { value: 'one', label: `${clef} clef` },
          ]}
        />
      ) : null}
    </>
  );
}
