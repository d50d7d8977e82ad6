import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { saidOnlyIn } from './rooms.testing';
import { OFTEN_ENOUGH } from './truth.testing';

// `npm run bench -- rooms --what=words` tells it of all families and six instruments.
test.each(
  thinned(
    [
      ['recorder-alto', 'pulses', 4],
      ['recorder-alto', 'long-tone', 5],
      ['flute', 'bends', 5],
      ['flute', 'problem-circle', 5],
      ['clarinet-bb', 'melody', 4],
      ['oboe', 'eight-ways', 6],
      ['recorder-alto', 'swells', 4],
      ['bassoon', 'reversed-dynamics', 2],
    ] as const,
    3,
  ),
)(
  'a faultless %s is told nothing of %s in a living room that is not so without it (place %d)',
  (id, family, place) => {
    expect(saidOnlyIn('living', [place], findInstrument(id)!, findFamily(family)!, OFTEN_ENOUGH)).toEqual([]);
  },
);
