import type { Midi } from '@/core/base';
import { soundingOf, type Instrument } from '@/core/instruments';
import type { Page } from '@/core/hearing/following';
import { FREE_SECONDS } from './liveThread';

const pages = new WeakMap<Instrument, Map<Midi, Page>>();

/** Where nothing is asked: one eye, for the note that sounds. The same note has the same page, so that nothing is drawn anew. */
export function freePage(sounding: Midi | null, instrument: Instrument): Page {
  const written = sounding ?? instrument.home;
  const known = pages.get(instrument) ?? new Map<Midi, Page>();
  pages.set(instrument, known);
  const before = known.get(written);
  if (before) return before;
  const page: Page = {
    groups: [
      {
        index: 0,
        from: 0,
        to: 0,
        written,
        sounding: soundingOf(instrument, written),
        startBeat: 0,
        beats: FREE_SECONDS,
        slurred: false,
        phrase: 0,
      },
    ],
    fromSeconds: 0,
    toSeconds: FREE_SECONDS,
    fromBeat: 0,
    toBeat: FREE_SECONDS,
  };
  known.set(written, page);
  return page;
}
