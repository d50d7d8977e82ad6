import Svg, { Circle, Path } from 'react-native-svg';
import { usePalette } from '@/ui';

interface StrandLineProps {
  readonly height: number;
  /** `seam` mends: gold, in two lengths. `rest`: two dots. `coming`: not played yet, on another day. */
  readonly look: 'plain' | 'seam' | 'rest' | 'coming' | 'coming-seam' | 'skipped';
  /** Which way it leans: no two neighbours are alike. */
  readonly place: number;
}

const WIDTH = 28;
const MIDDLE = WIDTH / 2;

/** A length of a strand, as long as its block. */
export function StrandLine({ height, look, place }: StrandLineProps) {
  const palette = usePalette();
  const lean = (place % 2 === 0 ? 1 : -1) * 2.4;
  const stroke =
    look === 'seam' || look === 'coming-seam'
      ? palette.gold
      : look === 'plain'
        ? palette.ink
        : palette.softInk;
  const from = 5;
  const to = Math.max(from + 8, height - 5);
  const length = (a: number, b: number) =>
    `M${MIDDLE} ${a} C${MIDDLE - lean} ${a + (b - a) / 3} ${MIDDLE + lean} ${b - (b - a) / 3} ${MIDDLE} ${b}`;
  if (look === 'rest')
    return (
      <Svg width={WIDTH} height={height}>
        {[-8, 8].map((by) => (
          <Circle key={by} cx={MIDDLE} cy={height / 2 + by} r={3.6} fill={palette.softInk} />
        ))}
      </Svg>
    );
  const half = from + (to - from) * 0.48;
  const lengths =
    look === 'seam' && height > 44 ? [length(from, half - 3), length(half + 3, to)] : [length(from, to)];
  const dotted = look === 'coming' || look === 'coming-seam' || look === 'skipped';
  return (
    <Svg width={WIDTH} height={height}>
      {lengths.map((d) => (
        <Path
          key={d}
          d={d}
          stroke={stroke}
          strokeWidth={look === 'seam' ? (height > 44 ? 9 : 7) : dotted ? 4 : 6}
          strokeLinecap="round"
          fill="none"
          {...(dotted && { strokeDasharray: '0.1 8' })}
        />
      ))}
    </Svg>
  );
}
