import { highOrLow } from '@/core/tuning';
import { extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { fixed, type Drawing } from '@/core/verdict';
import { Soft } from '@/ui';
import { fonts, usePalette } from '@/ui';
import { Titled } from './rows';

type Of<K extends Drawing['kind']> = Extract<Drawing, { kind: K }>;
interface Point {
  readonly seconds: number;
  readonly value: number;
}

const SMALL = { width: 150, height: 96 } as const;

type Scale = (value: number) => number;
/** Path of a line through points. */
const through = (points: readonly Point[], x: Scale, y: Scale): string =>
  line<Point>(
    (p) => x(p.seconds),
    (p) => y(p.value),
  )([...points]) ?? '';

/** Each hairpin: the level as it went, over the line that was asked for; the pitch above it. */
export function LinesDrawing({ notes }: Of<'lines'>) {
  const palette = usePalette();
  return (
    <Titled title="Level against the asked line, pitch above it">
      <ScrollView horizontal>
        {notes.map((note, i) => {
          const all = [...note.played, ...note.asked];
          const [t0, t1] = extent(all, (p) => p.seconds) as [number, number];
          const [d0, d1] = extent(all, (p) => p.value) as [number, number];
          const x = scaleLinear([t0, t1], [4, SMALL.width - 8]);
          const y = scaleLinear([d0, d1], [SMALL.height - 6, 34]);
          const pitch = scaleLinear([-30, 30], [30, 4]).clamp(true);
          return (
            <View key={i} style={styles.small}>
              <Svg
                width={SMALL.width}
                height={SMALL.height}
                role="img"
                aria-label={`${note.name}, ${note.shape}: from ${fixed(d0, 0)} to ${fixed(d1, 0)} dBFS`}
              >
                <Line x1={4} x2={SMALL.width - 8} y1={17} y2={17} stroke={palette.hairline} />
                <Path
                  d={through(note.cents, x, pitch)}
                  fill="none"
                  stroke={palette.slate}
                  strokeWidth={1.6}
                />
                <Path
                  d={through(note.asked, x, y)}
                  fill="none"
                  stroke={palette.gold}
                  strokeWidth={1.5}
                  strokeDasharray="5 4"
                />
                <Path d={through(note.played, x, y)} fill="none" stroke={palette.ink} strokeWidth={2.6} />
              </Svg>
              <Soft>{`${note.name} · ${fixed(d1 - d0, 0)} dB`}</Soft>
            </View>
          );
        })}
      </ScrollView>
      <Soft>Ink: the level. Gold, dashed: an even line. Slate: the pitch, the hairline its target.</Soft>
    </Titled>
  );
}

/** Glides: the pitch of each leg. */
export function BendDrawing({ legs }: Of<'bend'>) {
  const palette = usePalette();
  const reach = Math.max(40, ...legs.map((leg) => Math.abs(leg.reach)));
  return (
    <Titled title="The pitch of each glide, against the plain note">
      <ScrollView horizontal>
        {legs.map((leg, i) => {
          const [t0, t1] = extent(leg.points, (p) => p.seconds) as [number, number];
          const x = scaleLinear([t0, t1], [4, SMALL.width - 8]);
          const y = scaleLinear([-reach, reach], [SMALL.height - 4, 4]).clamp(true);
          return (
            <View key={i} style={styles.small}>
              <Svg
                width={SMALL.width}
                height={SMALL.height}
                role="img"
                aria-label={`${leg.label}: ${fixed(leg.reach, 0)} cents`}
              >
                <Line x1={4} x2={SMALL.width - 8} y1={y(0)} y2={y(0)} stroke={palette.hairline} />
                <Path d={through(leg.points, x, y)} fill="none" stroke={palette.ink} strokeWidth={2.4} />
              </Svg>
              <Soft>{`${leg.label} · ${fixed(leg.reach, 0)} cents`}</Soft>
            </View>
          );
        })}
      </ScrollView>
    </Titled>
  );
}

const SWEEP_HEIGHT = 230;

/** Level to the right, pitch upward; the line is thick where the tone rings. */
export function SweepDrawing({ name, legs, ringDb, tuneDb }: Of<'sweep'>) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const points = legs.flatMap((leg) => leg.points);
  if (points.length === 0) return null;
  const [l0, l1] = extent(points, (p) => p.levelDb) as [number, number];
  const [r0, r1] = extent(points, (p) => p.ring) as [number, number];
  const reach = Math.max(20, ...points.map((p) => Math.abs(p.cents)));
  const x = scaleLinear([l0, l1], [40, width - 16]);
  const y = scaleLinear([-reach, reach], [SWEEP_HEIGHT - 34, 22]);
  const thick = scaleLinear([r0, Math.max(r0 + 1, r1)], [1.5, 10]);
  const below = (dB: number | null) => (dB === null ? 'nowhere' : `${fixed(-dB, 0)} dB below the loudest`);
  const mark = (dB: number | null, text: string, gold: boolean) =>
    dB === null || width === 0 ? null : (
      <G>
        <Line
          x1={x(dB)}
          x2={x(dB)}
          y1={22}
          y2={SWEEP_HEIGHT - 34}
          stroke={gold ? palette.gold : palette.slate}
          strokeDasharray={gold ? '1 0' : '5 4'}
          strokeWidth={1.6}
        />
        <SvgText
          x={x(dB)}
          y={gold ? 14 : SWEEP_HEIGHT - 18}
          textAnchor="middle"
          fill={gold ? palette.goldText : palette.slate}
          fontFamily={fonts.bold}
          fontSize={14}
        >
          {text}
        </SvgText>
      </G>
    );
  return (
    <Titled title={`${name}: breath to the right, pitch upward, thick where it rings`}>
      <View
        onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
        role="img"
        aria-label={`Level against pitch: rings ${below(ringDb)}, in tune ${below(tuneDb)}`}
      >
        {width > 0 ? (
          <Svg width={width} height={SWEEP_HEIGHT}>
            <Line
              x1={40}
              x2={width - 16}
              y1={y(0)}
              y2={y(0)}
              stroke={palette.softInk}
              strokeDasharray="1 5"
            />
            <SvgText x={0} y={y(0) + 4} fill={palette.softInk} fontFamily={fonts.text} fontSize={13}>
              true
            </SvgText>
            {legs.map((leg) =>
              leg.points.slice(1).map((point, i) => {
                const before = leg.points[i]!;
                return (
                  <Line
                    key={`${leg.way}${i}`}
                    x1={x(before.levelDb)}
                    y1={y(before.cents)}
                    x2={x(point.levelDb)}
                    y2={y(point.cents)}
                    stroke={leg.way === 'up' ? palette.ink : palette.softInk}
                    strokeWidth={thick((before.ring + point.ring) / 2)}
                    strokeLinecap="round"
                  />
                );
              }),
            )}
            {mark(ringDb, 'rings', true)}
            {mark(tuneDb, 'in tune', false)}
          </Svg>
        ) : null}
      </View>
      <Soft>Dark: on the way up. Lighter: on the way down.</Soft>
    </Titled>
  );
}

const SCAN_HEIGHT = 210;

/** Every note by its place in the range; softness, mf and loudness told by shape. */
export function ScanDrawing({ notes }: Of<'scan'>) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const [n0, n1] = extent(notes, (note) => note.written) as [number, number];
  const reach = Math.max(20, ...notes.map((note) => Math.min(60, Math.abs(note.cents))));
  const x = scaleLinear([n0, n1], [14, width - 14]);
  const y = scaleLinear([-reach, reach], [SCAN_HEIGHT - 8, 8]).clamp(true);
  const lowest = notes.find((note) => note.written === n0);
  const highest = notes.find((note) => note.written === n1);
  return (
    <Titled title="Every note, low to high: above the line is high">
      <View
        onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
        role="img"
        aria-label={notes.map((note) => `${note.name} ${note.dynamic} ${highOrLow(note.cents)}`).join('; ')}
      >
        {width > 0 ? (
          <Svg width={width} height={SCAN_HEIGHT}>
            <Line x1={8} x2={width - 8} y1={y(0)} y2={y(0)} stroke={palette.softInk} />
            {notes.map((note, i) => {
              const at = { cx: x(note.written), cy: y(note.cents) };
              if (note.dynamic === 'p')
                return (
                  <Circle
                    key={i}
                    {...at}
                    r={4}
                    fill={palette.paper}
                    stroke={palette.slate}
                    strokeWidth={1.6}
                  />
                );
              if (note.dynamic === 'f')
                return <Rect key={i} x={at.cx - 4} y={at.cy - 4} width={8} height={8} fill={palette.gold} />;
              return <Circle key={i} {...at} r={4} fill={palette.ink} />;
            })}
          </Svg>
        ) : null}
      </View>
      <View style={styles.ends}>
        <Soft>{lowest?.name ?? ''}</Soft>
        <Soft>○ soft ● medium ■ loud</Soft>
        <Soft>{highest?.name ?? ''}</Soft>
      </View>
    </Titled>
  );
}

const styles = StyleSheet.create({
  small: { width: SMALL.width, gap: 2 },
  ends: { flexDirection: 'row', justifyContent: 'space-between' },
});
