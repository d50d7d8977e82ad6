import Svg, { Path } from 'react-native-svg';
import type { Midi } from '@/core/base';
import type { Note } from '@/core/hearing/notes';
import { usePalette } from '@/ui';
import { ribbonPath, type DrawnTrace } from './ribbonPath';

const REACH_CENTS = 40;

interface RibbonProps {
  readonly trace: DrawnTrace;
  readonly height: number;
  /** What is drawn of the trace; nothing when null. */
  readonly part: Pick<Note, 'startSeconds' | 'endSeconds'> | null;
  /** The time that the width stands for; the part itself unless told. */
  readonly fromSeconds?: number | undefined;
  readonly toSeconds?: number | undefined;
  /** Pitch of the dotted line. */
  readonly middleMidi: Midi;
}

/** The drawing is this wide inside, and stretched to the room there is: no row has to be measured while it scrolls by. */
const INSIDE = 200;

/** A stretch of a finished take as pitch and level over its time, as wide as there is room for. */
export function Ribbon({ trace, height, part, fromSeconds, toSeconds, middleMidi }: RibbonProps) {
  const palette = usePalette();
  return (
    <Svg width="100%" height={height} viewBox={`0 0 ${INSIDE} ${height}`} preserveAspectRatio="none">
      <Path
        d={`M0 ${height / 2} H${INSIDE}`}
        stroke={palette.softInk}
        strokeDasharray="1 5"
        vectorEffect="non-scaling-stroke"
      />
      {part ? (
        <Path
          d={ribbonPath(trace, part, {
            width: INSIDE,
            height,
            fromSeconds: fromSeconds ?? part.startSeconds,
            toSeconds: toSeconds ?? part.endSeconds,
            middleMidi,
            reachCents: REACH_CENTS,
          })}
          fill={palette.ink}
        />
      ) : null}
    </Svg>
  );
}
