import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { fixed, type ChartLine, type CurvesChart } from '@/core/verdict';
import { Soft } from '../text';
import { fonts, usePalette } from '../theme';

const HEIGHT = 150;
const LEFT = 40;
const FOOT = 22;
const HEAD = 18;
/** Marks nearer to each other than this stand under one another. */
const MARK_ROOM = 56;

/** One thing against another: the player's own in ink, what it is held against dashed, a second leg in slate. */
export function CurvesView({ chart }: { chart: CurvesChart }) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const { lines, marks, x: across, y: up, zero } = chart;
  const points = lines.flatMap((each) => each.points);
  const [x0 = 0, x1 = 1] = extent(points, (point) => point.x);
  const [y0 = 0, y1 = 1] = extent([...points.map((point) => point.y), ...(zero === undefined ? [] : [zero])]);
  const x = scaleLinear([x0, Math.max(x1, x0 + 1e-6)], [LEFT, Math.max(LEFT + 1, width - 8)]);
  const y = scaleLinear([y0, Math.max(y1, y0 + 1e-6)], [HEIGHT - FOOT, HEAD]);
  const look: Readonly<Record<ChartLine['style'], { stroke: string; width: number; dash?: string }>> = {
    played: { stroke: palette.ink, width: 2.6 },
    asked: { stroke: palette.gold, width: 1.6, dash: '5 4' },
    second: { stroke: palette.slate, width: 2.2, dash: '2 3' },
  };
  const number = (value: number) => fixed(value, Math.abs(y1 - y0) < 8 ? 1 : 0);
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      {width > 0 && points.length > 1 ? (
        <Svg width={width} height={HEIGHT} role="img" aria-label={spoken(chart, y0, y1)}>
          <Line x1={LEFT} x2={width - 8} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke={palette.hairline} />
          {zero === undefined ? null : (
            <Line
              x1={LEFT}
              x2={width - 8}
              y1={y(zero)}
              y2={y(zero)}
              stroke={palette.softInk}
              strokeDasharray="1 5"
            />
          )}
          {[y0, y1].map((value) => (
            <SvgText
              key={value}
              x={LEFT - 6}
              y={y(value) + 4}
              textAnchor="end"
              fontSize={13}
              fontFamily={fonts.text}
              fill={palette.softInk}
            >
              {number(value)}
            </SvgText>
          ))}
          {lines.map(({ style, points: row }, i) => (
            <Path
              key={i}
              d={
                line<{ x: number; y: number }>(
                  (point) => x(point.x),
                  (point) => y(point.y),
                )([...row]) ?? ''
              }
              fill="none"
              stroke={look[style].stroke}
              strokeWidth={look[style].width}
              {...(look[style].dash !== undefined && { strokeDasharray: look[style].dash })}
            />
          ))}
          {marks.map(({ x: at, text }, i) => {
            const before = marks[i - 1];
            const lower = before !== undefined && Math.abs(x(at) - x(before.x)) < MARK_ROOM;
            const right = x(at) > width - MARK_ROOM;
            return (
              <SvgText
                key={text}
                x={x(at) + (right ? -5 : 5)}
                y={lower ? 30 : 14}
                textAnchor={right ? 'end' : 'start'}
                fontSize={14}
                fontFamily={fonts.bold}
                fill={palette.goldText}
              >
                {text}
              </SvgText>
            );
          })}
          {marks.map(({ x: at, text }) => (
            <Line
              key={text}
              x1={x(at)}
              x2={x(at)}
              y1={4}
              y2={HEIGHT - FOOT}
              stroke={palette.gold}
              strokeWidth={1.6}
            />
          ))}
        </Svg>
      ) : null}
      <Soft>{`${legend(lines)} Across: ${across.label}, ${fixed(x0, 0)} to ${fixed(x1, 0)} ${across.unit}. Up: ${up.label}, ${up.unit}.`}</Soft>
    </View>
  );
}

const LOOKS: Readonly<Record<ChartLine['style'], string>> = {
  played: 'ink',
  asked: 'gold, dashed',
  second: 'slate, dotted',
};

function legend(lines: readonly ChartLine[]): string {
  const shown = (Object.keys(LOOKS) as ChartLine['style'][]).flatMap((style) => {
    const names = [...new Set(lines.filter((each) => each.style === style).map(({ name }) => name))];
    return names.length === 0 ? [] : [`${names.join(' and ')} in ${LOOKS[style]}`];
  });
  const text = shown.join('; ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

function spoken({ title, y, marks }: CurvesChart, low: number, high: number): string {
  const places = marks.map(({ x, text }) => `, ${text} at ${fixed(x, 1)}`).join('');
  return `${title}: ${y.label} from ${fixed(low, 0)} to ${fixed(high, 0)} ${y.unit}${places}`;
}
