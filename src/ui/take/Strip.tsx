import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { heldNote } from '@/core/assess';
import type { Take } from '@/core/take';
import { fonts, usePalette } from '../theme';
import { ribbonPath } from './ribbon';

interface StripProps {
  readonly take: Take;
  readonly height: number;
  /** With the scale beside it, or alone as a small picture. */
  readonly scale?: boolean;
}

const SIDE = 44;
const STEADY_REACH = 25;
const WIDE_REACH = 60;
const MARGIN_SECONDS = 0.3;

/** A take's held note as a small drawing of pitch and level. */
export function Strip({ take, height, scale = false }: StripProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const note = heldNote(take.notes);
  const room = Math.max(0, width - (scale ? SIDE : 0));
  const spread = note
    ? Math.abs(note.centreCents ?? 0) + (note.vibrato?.extentCents ?? 0) + 3 * (note.wobbleCents ?? 0)
    : 0;
  const reach = spread < STEADY_REACH * 0.8 ? STEADY_REACH : WIDE_REACH;
  const from = note ? Math.max(0, note.startSeconds - MARGIN_SECONDS) : 0;
  const to = note ? Math.min(take.durationSeconds, note.endSeconds + MARGIN_SECONDS) : take.durationSeconds;
  const y = (cents: number) => height * (0.5 - cents / (2 * reach));
  const marks = scale ? [reach * 0.8, 0, -reach * 0.8] : [];
  return (
    <View
      role="img"
      aria-label={note ? 'Pitch and level of the held note over its time' : 'No note was heard'}
      onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
      style={{ height }}
    >
      {width > 0 ? (
        <Svg width={width} height={height}>
          <Line x1={0} x2={room} y1={y(0)} y2={y(0)} stroke={palette.softInk} strokeDasharray="1 5" />
          {note ? (
            <Path
              d={ribbonPath(take.trace, note, {
                width: room,
                height,
                fromSeconds: from,
                toSeconds: to,
                middleMidi: note.soundingMidi,
                reachCents: reach,
              })}
              fill={palette.ink}
            />
          ) : null}
          {marks.map((cents) => (
            <SvgText
              key={cents}
              x={width}
              y={y(cents) + 4}
              textAnchor="end"
              fill={palette.softInk}
              fontFamily={fonts.text}
              fontSize={13}
            >
              {cents === 0 ? 'true' : `${Math.abs(cents)} ${cents > 0 ? 'high' : 'low'}`}
            </SvgText>
          ))}
        </Svg>
      ) : null}
    </View>
  );
}
