import { useState } from 'react';
import { View } from 'react-native';
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { Change, Stretch } from '@/core/ledger';
import { fonts, usePalette, shortDay } from '@/ui';

const HEIGHT = 120;
const LINE = 74;
/** Words nearer than this to the one before are left out. */
const ROOM = 58;

/** Places that have room for words: from left to right, each far enough from the one before. */
function spaced(places: readonly number[]): ReadonlySet<number> {
  const told = new Set<number>();
  let last = -Infinity;
  places.forEach((place, i) => {
    if (place - last < ROOM) return;
    told.add(i);
    last = place;
  });
  return told;
}

interface SeamThreadProps {
  readonly stretches: readonly Stretch[];
  readonly changes: readonly Change[];
  readonly label: string;
}

/** A seam's mending as one thread: the more of a stretch was clean, the more of its line is there, and the thicker. */
export function SeamThread({ stretches, changes, label }: SeamThreadProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const first = stretches[0]?.fromDay ?? 0;
  const last = stretches.at(-1)?.untilDay ?? 1;
  const x = (day: number) => 4 + ((day - first) / Math.max(1e-6, last - first)) * (width - 8);
  const told = spaced(stretches.map(({ fromDay, untilDay }) => (x(fromDay) + x(untilDay)) / 2));
  const marks = changes.filter(({ day }) => day > first && day < last);
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)} style={{ height: HEIGHT }}>
      {width > 0 && stretches.length > 0 ? (
        <Svg width={width} height={HEIGHT} role="img" aria-label={label}>
          <Line x1={4} x2={width - 4} y1={LINE} y2={LINE} stroke={palette.hairline} strokeWidth={1.5} />
          {marks.map(({ day, to }) => (
            <G key={`${day}${to}`}>
              <Line x1={x(day)} x2={x(day)} y1={20} y2={26} stroke={palette.softInk} />
              <SvgText
                x={x(day)}
                y={15}
                textAnchor={x(day) < 60 ? 'start' : x(day) > width - 60 ? 'end' : 'middle'}
                fontSize={14}
                fontFamily={fonts.text}
                fill={palette.softInk}
              >
                {to}
              </SvgText>
            </G>
          ))}
          {stretches.map(({ fromDay, untilDay, clean, of }, i) => {
            const [from, to] = [x(fromDay) + 3, x(untilDay) - 3];
            const share = clean / of;
            const at = (from + to) / 2;
            const room = told.has(i);
            const anchor = at < 30 ? 'start' : at > width - 30 ? 'end' : 'middle';
            return (
              <G key={fromDay}>
                <Path
                  d={`M${from} ${LINE} Q${at} ${LINE + (i % 2 ? 3 : -3)} ${to} ${LINE}`}
                  fill="none"
                  stroke={palette.gold}
                  strokeWidth={1.5 + 4.5 * share}
                  {...(share < 1 && { strokeDasharray: `${3 + 14 * share} ${2 + 8 * (1 - share)}` })}
                />
                {room ? (
                  <>
                    <SvgText
                      x={anchor === 'start' ? from : anchor === 'end' ? to : at}
                      y={LINE - 16}
                      textAnchor={anchor}
                      fontSize={15}
                      fontFamily={fonts.bold}
                      fill={palette.ink}
                    >
                      {`${clean} of ${of}`}
                    </SvgText>
                    <SvgText
                      x={anchor === 'start' ? from : anchor === 'end' ? to : at}
                      y={LINE + 26}
                      textAnchor={anchor}
                      fontSize={14}
                      fontFamily={fonts.text}
                      fill={palette.softInk}
                    >
                      {shortDay(fromDay)}
                    </SvgText>
                  </>
                ) : null}
              </G>
            );
          })}
        </Svg>
      ) : null}
    </View>
  );
}
