import { useMemo } from 'react';
import { asRead, isTransposing, type ReadAs, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import { Button, Soft, useNoteName } from '@/ui';

/** Music as the player chose to read it. */
export function useAsRead(score: Score, instrument: Instrument): { score: Score; instrument: Instrument } {
  const { readAs } = useSettings().settings;
  return useMemo(() => asRead(score, instrument, readAs), [score, instrument, readAs]);
}

interface HowToReadProps {
  readonly instrument: Instrument;
  /** Clefs are a matter of music, not of names. */
  readonly clefs?: boolean;
}

/** At a tap: written or sounding pitch, where these have different names; and the clef of high phrases, where there are two. */
export function HowToRead({ instrument, clefs = false }: HowToReadProps) {
  const nameOf = useNoteName();
  const {
    settings: { readAs },
    change,
  } = useSettings();
  const { home, transposition, clef, upperClef } = instrument;
  const read = (part: Partial<ReadAs>) => void change({ readAs: { ...readAs, ...part } });
  const sounding = readAs.pitch === 'sounding';
  return (
    <>
      {isTransposing(instrument) ? (
        <Button
          look="quiet"
          label={
            sounding
              ? `As it is written: ${nameOf(home)}, not ${nameOf(home + transposition)}`
              : `As it sounds: ${nameOf(home + transposition)} for ${nameOf(home)}`
          }
          onPress={() => read({ pitch: sounding ? 'written' : 'sounding' })}
        />
      ) : null}
      {isTransposing(instrument) && sounding && clefs ? (
        <Soft>For reading only: the stand, sheets and files keep to what is written.</Soft>
      ) : null}
      {clefs && upperClef ? (
        <Button
          look="quiet"
          label={readAs.oneClef ? `High phrases in the ${upperClef.clef} clef` : `All in the ${clef} clef`}
          onPress={() => read({ oneClef: !readAs.oneClef })}
        />
      ) : null}
    </>
  );
}
