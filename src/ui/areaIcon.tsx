import Svg, { Circle, Ellipse, Line, Path } from 'react-native-svg';

export type Area = 'today' | 'practise' | 'map' | 'log' | 'bench';

const SIZE = 24;

/** The five areas in the drawings of this house: a strand, the thread through an eye, the bore, the strip, a reed. */
export function AreaIcon({ area, colour }: { area: Area; colour: string }) {
  const line = { stroke: colour, strokeWidth: 2.2, strokeLinecap: 'round', fill: 'none' } as const;
  return (
    <Svg width={SIZE} height={SIZE} viewBox="0 0 24 24" aria-hidden>
      {
        {
          today: (
            <>
              <Path d="M12 2.5 C10.5 5 13.5 7 12 9.5" {...line} />
              <Path d="M12 13 C13.5 15 10.5 17 12 19" {...line} />
              <Circle cx={12} cy={22} r={1.4} fill={colour} />
            </>
          ),
          practise: (
            <>
              <Ellipse cx={12} cy={12} rx={6} ry={4.4} {...line} />
              <Path d="M2 13.5 C7 10 16 14.5 22 10.5" {...line} strokeWidth={1.8} />
            </>
          ),
          map: (
            <>
              <Path d="M9 2.5 H15 L17 21.5 H7 Z" {...line} />
              <Line x1={5} x2={19} y1={12} y2={12} {...line} />
            </>
          ),
          log: [5, 9.7, 14.3, 19].map((x, i) => (
            <Line key={x} x1={x} x2={x} y1={20} y2={[8, 13, 5, 10][i]} {...line} />
          )),
          bench: (
            <>
              <Path d="M9 21.5 V11 C9 6 10.5 3.5 12 2.5 C13.5 3.5 15 6 15 11 V21.5 Z" {...line} />
              <Line x1={9} x2={15} y1={14} y2={14} {...line} />
            </>
          ),
        }[area]
      }
    </Svg>
  );
}
