import { extent, max, min } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { fixed } from '@/core/verdict';
import { fonts, usePalette } from '../theme';

export interface TimePoint {
  readonly day: number;
  readonly value: number;
  /** Lowest and highest of the day. */
  readonly low: number;
  readonly high: number;
}

interface TimeChartProps {
  /** What is drawn, for those who hear it. */
  readonly label: string;
  readonly points: readonly TimePoint[];
  /** What the line says at the first and the last point; drawn only where something is claimed. */
  readonly line?: readonly [number, number] | null;
  /** A value to be near, and how near. */
  readonly target?: { readonly value: number; readonly within: number };
  readonly marks?: readonly { readonly day: number; readonly text: string }[];
  readonly decimals: number;
  readonly dateOf: (day: number) => string;
}

const HEIGHT = 170;
const LEFT = 44;
const RIGHT = 10;
const HEAD = 34;
const FOOT = 24;
/** Marks nearer than this stand under one another. */
const MARK_ROOM = 74;

/** A figure over time: a dot a day, a stroke from the day's lowest to its highest, what was changed on the way above. */
export function TimeChart({ label, points, line, target, marks = [], decimals, dateOf }: TimeChartProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const [first = 0, last = 1] = extent(points, ({ day }) => day);
  const ends = target ? [target.value - target.within, target.value + target.within] : [];
  const low = min([...points.map((point) => point.low), ...ends]) ?? 0;
  const high = max([...points.map((point) => point.high), ...ends]) ?? 1;
  const room = Math.max((high - low) * 0.08, 0.5 * 10 ** -decimals);
  const x = scaleLinear([first, Math.max(last, first + 1)], [LEFT + 6, Math.max(LEFT + 7, width - RIGHT)]);
  const y = scaleLinear([low - room, high + room], [HEIGHT - FOOT, HEAD]);
  const inside = marks.filter(({ day }) => day > first && day <= last);
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      {width > 0 && points.length > 0 ? (
        <Svg width={width} height={HEIGHT} role="img" aria-label={label}>
          {target ? (
            <Rect
              x={LEFT}
              width={width - RIGHT - LEFT}
              y={y(target.value + target.within)}
              height={y(target.value - target.within) - y(target.value + target.within)}
              fill={palette.leaf}
            />
          ) : null}
          {target ? (
            <Line
              x1={LEFT}
              x2={width - RIGHT}
              y1={y(target.value)}
              y2={y(target.value)}
              stroke={palette.hairline}
              strokeWidth={1.5}
            />
          ) : null}
          {[low, high].map((value) => (
            <SvgText
              key={value}
              x={LEFT - 6}
              y={y(value) + 5}
              textAnchor="end"
              fontSize={14}
              fontFamily={fonts.text}
              fill={palette.softInk}
            >
              {fixed(value, decimals)}
            </SvgText>
          ))}
          {inside.map(({ day, text }, i) => {
            const before = inside[i - 1];
            const lower = before !== undefined && x(day) - x(before.day) < MARK_ROOM && i % 2 === 1;
            const atRight = x(day) > width - MARK_ROOM;
            return (
              <G key={`${day}-${text}`}>
                <Line
                  x1={x(day)}
                  x2={x(day)}
                  y1={lower ? 30 : 16}
                  y2={HEIGHT - FOOT}
                  stroke={palette.softInk}
                  strokeDasharray="2 4"
                />
                <SvgText
                  x={x(day) + (atRight ? 4 : -4)}
                  y={lower ? 28 : 13}
                  textAnchor={atRight ? 'end' : x(day) < LEFT + MARK_ROOM ? 'start' : 'middle'}
                  fontSize={14}
                  fontFamily={fonts.text}
                  fill={palette.softInk}
                >
                  {text}
                </SvgText>
              </G>
            );
          })}
          {line ? (
            <Line
              x1={x(first)}
              x2={x(last)}
              y1={y(line[0])}
              y2={y(line[1])}
              stroke={palette.gold}
              strokeWidth={3}
            />
          ) : null}
          {points.map((point) => (
            <G key={point.day}>
              <Line
                x1={x(point.day)}
                x2={x(point.day)}
                y1={y(point.low)}
                y2={y(point.high)}
                stroke={palette.softInk}
                strokeWidth={1.5}
              />
              <Circle cx={x(point.day)} cy={y(point.value)} r={3.6} fill={palette.ink} />
            </G>
          ))}
          {[first, ...(last > first ? [last] : [])].map((day, i) => (
            <SvgText
              key={day}
              x={i === 0 ? x(day) - 6 : x(day)}
              y={HEIGHT - 5}
              textAnchor={i === 0 ? 'start' : 'end'}
              fontSize={14}
              fontFamily={fonts.text}
              fill={palette.softInk}
            >
              {dateOf(day)}
            </SvgText>
          ))}
        </Svg>
      ) : null}
    </View>
  );
}
