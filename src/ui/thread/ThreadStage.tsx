import { useNaming, useNoteName } from '../naming';
import { useEffect, useImperativeHandle, useMemo, useRef, type Ref } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg';
import { phrasesByKey, spellerOf, type Score } from '@/core/music';
import type { Page } from '@/core/hearing/following';
import type { Group } from '@/core/hearing/matching';
import type { Instrument } from '@/core/instruments';
import { spelledName } from '@/core/tuning';
import { fonts, usePalette } from '../theme';
import { ThreadPainter, type ThreadPoint } from './painter';
import { stagingOf, type Eye } from './staging';

export interface ThreadHandle {
  push(points: readonly ThreadPoint[]): void;
}

interface ThreadStageProps {
  readonly ref: Ref<ThreadHandle>;
  readonly page: Page;
  readonly score: Score;
  readonly instrument: Instrument;
  /** Group that is asked for now. */
  readonly current: number;
  readonly width: number;
  readonly height: number;
  /** Blind work: neither thread nor tip is seen. */
  readonly hidden: boolean;
  /** A thread that begins anew takes the place of the one before. */
  readonly anew?: boolean;
}

/**
 * The live sound as a thread passing through the eyes of the written notes. It is painted on a canvas as it comes, outside
 * React: a new frame renders nothing.
 */
export function ThreadStage({
  ref,
  page,
  score,
  instrument,
  current,
  width,
  height,
  hidden,
  anew = false,
}: ThreadStageProps) {
  const palette = usePalette();
  const canvas = useRef<HTMLCanvasElement>(null);
  const tip = useRef<HTMLDivElement>(null);
  const painter = useRef<ThreadPainter | null>(null);
  const nameOf = useNoteName();
  const naming = useNaming();
  const nameAt = useMemo(() => {
    const spell = spellerOf(score);
    const byEar = score.byEar ? phrasesByKey(score)[1]?.from : undefined;
    return ({ from, written }: Group) => {
      if (from >= (byEar ?? Infinity)) return '';
      // Played freely, what sounds is in no music.
      return score.notes[from]?.written === written ? spelledName(spell(from), naming) : nameOf(written);
    };
  }, [score, naming, nameOf]);
  const staging = useMemo(
    () => stagingOf(page, score, instrument, width, height, nameOf, nameAt),
    [page, score, instrument, width, height, nameOf, nameAt],
  );

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context) return;
    const scale = Math.min(2, window.devicePixelRatio || 1);
    element.width = width * scale;
    element.height = height * scale;
    painter.current = new ThreadPainter(context, staging, palette, scale, anew);
  }, [width, height, staging, palette, anew]);

  useImperativeHandle(ref, () => ({
    push(points) {
      const brush = painter.current;
      if (!brush) return;
      for (const point of points) brush.push(point);
      const mark = tip.current;
      if (!mark) return;
      const at = brush.tip;
      mark.style.opacity = at ? '1' : '0';
      if (at) mark.style.transform = `translate(${at.x - 7}px, ${at.y - 7}px)`;
    },
  }));

  const names = page.groups.length <= 1 ? 20 : 16;
  return (
    <View
      style={{ width, height }}
      role="img"
      aria-label={`Your sound as a thread through the eyes of ${staging.eyes.map((eye) => eye.name || 'a note by ear').join(', ')}`}
    >
      <Svg width={width} height={height} style={StyleSheet.absoluteFill}>
        {staging.seams.map(({ y, text }) => (
          <G key={text}>
            <Line
              x1={0}
              x2={width}
              y1={y}
              y2={y}
              stroke={palette.gold}
              strokeDasharray="14 4 2 4"
              strokeWidth={1.3}
            />
            <SvgText
              x={width - 4}
              y={y - 7}
              textAnchor="end"
              fill={palette.goldText}
              fontFamily={fonts.text}
              fontSize={14}
            >
              {text}
            </SvgText>
          </G>
        ))}
        {staging.eyes.map((eye) => {
          const now = eye.group.index === current;
          const past = eye.group.index < current;
          return (
            <G key={eye.group.index}>
              <Path
                d={lens(eye, staging.half)}
                fill="none"
                stroke={now ? palette.gold : palette.softInk}
                strokeOpacity={past ? 0.45 : 1}
                strokeWidth={now ? 2.4 : 1.2}
              />
              <SvgText
                x={eye.x + Math.min(eye.width / 2, 40)}
                y={eye.y > height / 2 ? eye.y + staging.half + 20 : eye.y - staging.half - 9}
                textAnchor="middle"
                fill={now ? palette.goldText : palette.softInk}
                fontFamily={now ? fonts.bold : fonts.text}
                fontSize={now ? names + 3 : names}
              >
                {eye.name}
              </SvgText>
            </G>
          );
        })}
      </Svg>
      <canvas
        ref={canvas}
        style={{ position: 'absolute', inset: 0, width, height, visibility: hidden ? 'hidden' : 'visible' }}
      />
      <div
        ref={tip}
        style={{
          position: 'absolute',
          left: 0,
          top: 0,
          width: 14,
          height: 14,
          borderRadius: 7,
          backgroundColor: palette.gold,
          opacity: 0,
          visibility: hidden ? 'hidden' : 'visible',
        }}
      />
    </View>
  );
}

/** An eye: pointed at both ends, straight between them when the note is long. */
function lens({ x, y, width }: Eye, half: number): string {
  const corner = Math.min(34, width / 2);
  const straight = width - 2 * corner;
  const side = (dx: number, dy: number) => `c${0.4 * dx} ${0.3 * dy} ${0.55 * dx} ${dy} ${dx} ${dy}`;
  const back = (dx: number, dy: number) => `c${0.45 * dx} 0 ${0.6 * dx} ${0.7 * dy} ${dx} ${dy}`;
  return `M${x} ${y} ${side(corner, -half)} h${straight} ${back(corner, half)} ${side(-corner, half)} h${-straight} ${back(-corner, -half)} Z`;
}
