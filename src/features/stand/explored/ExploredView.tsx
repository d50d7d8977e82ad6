import Svg from 'react-native-svg';
import type { Seconds } from '@/core/base';
import type { ExploredPicture } from '@/core/hearing/following';
import { Bow } from './Bow';
import { DynamicEnds } from './DynamicEnds';
import { Growth } from './Growth';
import type { Room } from './plane';
import { Reach } from './Reach';

interface ExploredViewProps extends Room {
  readonly picture: ExploredPicture;
  /** For a hold: the longest pure one of earlier takes; null: there is none yet. */
  readonly best: Seconds | null;
}

const SPOKEN: Readonly<Record<ExploredPicture['kind'], string>> = {
  bow: 'Your sound as a bow: louder to the right, higher upwards, thick where it rings',
  reach: 'Your pitch on its way down and up, with the farthest that it came',
  window: 'Each note between its softest and its loudest',
  growth: 'Each hold as long as it lasted, against the longest pure one so far',
};

/** What is explored, while it sounds. */
export function ExploredView({ picture, best, width, height }: ExploredViewProps) {
  return (
    <Svg
      width={width}
      height={height}
      role="img"
      aria-label={SPOKEN[picture.kind]}
      testID={`explored-${picture.kind}`}
    >
      {picture.kind === 'bow' ? <Bow {...{ picture, width, height }} /> : null}
      {picture.kind === 'reach' ? <Reach {...{ picture, width, height }} /> : null}
      {picture.kind === 'window' ? <DynamicEnds {...{ picture, width, height }} /> : null}
      {picture.kind === 'growth' ? <Growth {...{ picture, best, width, height }} /> : null}
    </Svg>
  );
}
