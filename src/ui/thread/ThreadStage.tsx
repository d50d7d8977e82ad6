import { useEffect, useImperativeHandle, useRef, type Ref } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { fonts, usePalette } from '../theme';
import { ThreadPainter, type ThreadPoint } from './painter';

export interface ThreadHandle {
  push(points: readonly ThreadPoint[]): void;
}

interface ThreadStageProps {
  readonly ref: Ref<ThreadHandle>;
  readonly width: number;
  readonly height: number;
  /** The note's name, and how long it is to be held. */
  readonly name: string;
  readonly holdSeconds: number;
  /** Seconds of one beat, for the small marks along the eye; null when free. */
  readonly beatSeconds: number | null;
}

const REACH_CENTS = 40;
const BEFORE_SECONDS = 0.6;
const AFTER_SECONDS = 1;
/** Half the height of the eye: what passes through it is well in tune. */
const EYE_CENTS = 12;

/**
 * The live sound as a thread passing through the eye of the written note. It is painted on a canvas as it comes,
 * outside React: a new frame renders nothing.
 */
export function ThreadStage({ ref, width, height, name, holdSeconds, beatSeconds }: ThreadStageProps) {
  const palette = usePalette();
  const canvas = useRef<HTMLCanvasElement>(null);
  const tip = useRef<HTMLDivElement>(null);
  const painter = useRef<ThreadPainter | null>(null);
  const span = holdSeconds + BEFORE_SECONDS + AFTER_SECONDS;

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context) return;
    const scale = Math.min(2, window.devicePixelRatio || 1);
    element.width = width * scale;
    element.height = height * scale;
    const frame = { width, height, fromSeconds: -BEFORE_SECONDS, spanSeconds: span, reachCents: REACH_CENTS };
    painter.current = new ThreadPainter(context, frame, palette, scale);
  }, [width, height, span, palette]);

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

  const x = (seconds: number) => ((seconds + BEFORE_SECONDS) / span) * width;
  const middle = height / 2;
  const eye = (EYE_CENTS / (2 * REACH_CENTS)) * height;
  const corner = Math.min(46, x(holdSeconds) - x(0));
  const beats =
    beatSeconds === null
      ? []
      : Array.from({ length: Math.round(holdSeconds / beatSeconds) - 1 }, (_, i) => (i + 1) * beatSeconds);
  return (
    <View
      style={{ width, height }}
      role="img"
      aria-label={`Your sound as a thread through the eye of ${name}`}
    >
      <Svg width={width} height={height} style={StyleSheet.absoluteFill}>
        <Path
          d={`M${x(0)} ${middle} q${corner / 2} ${-eye} ${corner} ${-eye} H${x(holdSeconds) - corner} q${corner / 2} 0 ${corner} ${eye} q${-corner / 2} ${eye} ${-corner} ${eye} H${x(0) + corner} q${-corner / 2} 0 ${-corner} ${-eye} Z`}
          fill="none"
          stroke={palette.gold}
          strokeWidth={1.5}
        />
        {beats.map((seconds) => (
          <Line
            key={seconds}
            x1={x(seconds)}
            x2={x(seconds)}
            y1={middle + eye - 5}
            y2={middle + eye + 5}
            stroke={palette.softInk}
          />
        ))}
        <SvgText x={x(0)} y={middle - eye - 14} fill={palette.goldText} fontFamily={fonts.bold} fontSize={20}>
          {name}
        </SvgText>
        <SvgText
          x={width - 4}
          y={16}
          textAnchor="end"
          fill={palette.softInk}
          fontFamily={fonts.text}
          fontSize={13}
        >
          {`${REACH_CENTS} cents high`}
        </SvgText>
        <SvgText
          x={width - 4}
          y={height - 6}
          textAnchor="end"
          fill={palette.softInk}
          fontFamily={fonts.text}
          fontSize={13}
        >
          {`${REACH_CENTS} cents low`}
        </SvgText>
      </Svg>
      <canvas ref={canvas} style={{ position: 'absolute', inset: 0, width, height }} />
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
        }}
      />
    </View>
  );
}
