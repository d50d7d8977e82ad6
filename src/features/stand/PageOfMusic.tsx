import { useMemo } from 'react';
import { asRead, barsBetween, phrasesByKey, type Score } from '@/core/music';
import type { Page } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
import { useSettings } from '@/store';
import { Notation } from '@/ui';
import { KeysByEar } from './KeysByEar';

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
  const { fromBeat } = page;
  // Music to be played by ear shows its first phrase; of the others their names.
  const phrases = useMemo(() => (score.byEar ? phrasesByKey(score) : []), [score]);
  const toBeat = Math.min(page.toBeat, phrases[1]?.startBeat ?? Infinity);
  const bars = useMemo(() => barsBetween(score, fromBeat, toBeat), [score, fromBeat, toBeat]);
  const { readAs } = useSettings().settings;
  const read = useMemo(
    () => asRead(bars.score, instrument, { ...readAs, pitch: 'written' }),
    [bars, instrument, readAs],
  );
  const here = page.groups.find((group) => group.index === current);
  const now = phrases.findLastIndex(({ from }) => from <= (here ?? page.groups[0]!).from);
  const marked = useMemo(() => {
    const length = here ? here.to - here.from + 1 : 0;
    return new Set(Array.from({ length }, (_, i) => here!.from + i - bars.first));
  }, [here, bars]);
  if (now > 0) return <KeysByEar phrase={phrases[now]!} next={phrases[now + 1] ?? null} />;
  return <Notation {...read} scale={size} height={room} marked={marked} part={bars} />;
}
