import { useMemo } from 'react';
import { asRead, barsBetween, type Score } from '@/core/music';
import type { Page } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import { Notation } from '@/ui';

interface PageOfMusicProps {
  readonly score: Score;
  readonly page: Page;
  /** Group to be played now. */
  readonly current: number;
  readonly instrument: Instrument;
  readonly size: number;
  /** Height that there is for it. */
  readonly room: number;
}

/** The bars of this page, engraved; the note to be played now in gold. */
export function PageOfMusic({ score, page, current, instrument, size, room }: PageOfMusicProps) {
  const { fromBeat, toBeat } = page;
  const bars = useMemo(() => barsBetween(score, fromBeat, toBeat), [score, fromBeat, toBeat]);
  const { readAs } = useSettings().settings;
  const read = useMemo(
    () => asRead(bars.score, instrument, { ...readAs, pitch: 'written' }),
    [bars, instrument, readAs],
  );
  const here = page.groups.find((group) => group.index === current);
  const marked = useMemo(() => {
    const length = here ? here.to - here.from + 1 : 0;
    return new Set(Array.from({ length }, (_, i) => here!.from + i - bars.first));
  }, [here, bars]);
  return <Notation {...read} scale={size} height={room} marked={marked} part={bars} />;
}
