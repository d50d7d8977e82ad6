import { useMemo } from 'react';
import { excerpt, type Score } from '@/core/music';
import type { Page } from '@/core/hearing/following';
import type { Instrument } from '@/core/instruments';
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

/** The notes of this page, engraved; the one to be played now in gold. */
export function PageOfMusic({ score, page, current, instrument, size, room }: PageOfMusicProps) {
  const first = page.groups[0];
  const last = page.groups[page.groups.length - 1];
  const here = page.groups.find((group) => group.index === current);
  const shown = useMemo(
    () => (first && last ? { ...excerpt(score, first.from, last.to, 1), repeats: 1 } : score),
    [score, first, last],
  );
  const marked = useMemo(() => {
    if (!here || !first) return new Set<number>();
    return new Set(Array.from({ length: here.to - here.from + 1 }, (_, i) => here.from - first.from + i));
  }, [here, first]);
  return <Notation score={shown} instrument={instrument} scale={size} height={room} marked={marked} />;
}
