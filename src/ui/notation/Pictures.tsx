import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { scoreBeats, type Picture, type Score } from '@/core/music';
import { Soft } from '../text';
import { fonts, usePalette } from '../theme';

const ROW = 86;
const MIDDLE = 50;
const REACH = 30;
const BEATS_A_ROW = 16;
const CAPTION = 26;

/** A picture that goes on in the next row, in parts. */
function rowsOf(picture: Picture): Picture[] {
  const room = BEATS_A_ROW - (picture.startBeat % BEATS_A_ROW);
  if (picture.beats <= room) return [picture];
  const middle = picture.from + ((picture.to - picture.from) * room) / picture.beats;
  return [
    { ...picture, beats: room, to: middle },
    ...rowsOf({
      ...picture,
      startBeat: picture.startBeat + room,
      beats: picture.beats - room,
      from: middle,
    }),
  ];
}

interface PicturesProps {
  readonly score: Score;
  /** Where the beat is now: a line that wanders. */
  readonly beat?: number;
  /** Room that there is: rows that find none come when it is their time, and the words are left to who shows the step. */
  readonly height?: number;
}

/** What the breath is to do, along time: a ribbon above the line goes out, below it comes in; its height is the strength. */
export function Pictures({ score, beat: now, height = Infinity }: PicturesProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const rows = Math.ceil(scoreBeats(score) / BEATS_A_ROW);
  const x = (beat: number) => ((beat % BEATS_A_ROW) / BEATS_A_ROW) * width;
  const beat = width / BEATS_A_ROW;
  const parts = score.pictures.flatMap(rowsOf);
  const shape = ({ startBeat, beats, shape: kind, from, to }: Picture) => {
    const left = x(startBeat);
    const right = left + beats * beat - 3;
    const top = Math.floor(startBeat / BEATS_A_ROW) * ROW + MIDDLE;
    const sign = kind === 'in' ? 1 : -1;
    return kind === 'rest'
      ? null
      : `M${left} ${top} V${top + sign * from * REACH} L${right} ${top + sign * to * REACH} V${top} Z`;
  };
  // The same words are not repeated from one picture to the next.
  const captions = score.pictures.filter((each, i) => each.text !== score.pictures[i - 1]?.text);
  const steps = [...new Set(captions.map((each) => each.text))];
  const whole = rows * ROW + steps.length * CAPTION <= height;
  const shown = whole ? rows : Math.max(1, Math.min(rows, Math.floor(height / ROW)));
  const first = Math.max(0, Math.min(rows - shown, Math.floor((now ?? 0) / BEATS_A_ROW)));
  return (
    <View
      onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
      role="img"
      aria-label={`Breath: ${steps.join('; ')}`}
    >
      {width > 0 ? (
        <Svg width={width} height={shown * ROW} viewBox={`0 ${first * ROW} ${width} ${shown * ROW}`}>
          {Array.from({ length: rows }, (_, row) => (
            <Line
              key={row}
              x1={0}
              x2={width}
              y1={row * ROW + MIDDLE}
              y2={row * ROW + MIDDLE}
              stroke={palette.hairline}
            />
          ))}
          {parts.map((each) => {
            const d = shape(each);
            return d ? (
              <Path
                key={each.startBeat}
                d={d}
                fill={each.shape === 'in' ? 'none' : palette.slate}
                fillOpacity={0.35}
                stroke={palette.slate}
                strokeDasharray={each.shape === 'in' ? '4 3' : '1 0'}
              />
            ) : null;
          })}
          {captions.map((each) => (
            <SvgText
              key={each.startBeat}
              x={x(each.startBeat) + 2}
              y={Math.floor(each.startBeat / BEATS_A_ROW) * ROW + MIDDLE + 22}
              fontSize={13}
              fontFamily={fonts.bold}
              fill={palette.ink}
            >
              {String(steps.indexOf(each.text) + 1)}
            </SvgText>
          ))}
          {now === undefined || now < 0 ? null : (
            <Line
              x1={x(now)}
              x2={x(now)}
              y1={Math.floor(now / BEATS_A_ROW) * ROW + MIDDLE - REACH - 6}
              y2={Math.floor(now / BEATS_A_ROW) * ROW + MIDDLE + REACH + 6}
              stroke={palette.gold}
              strokeWidth={3}
            />
          )}
        </Svg>
      ) : null}
      {whole ? steps.map((text, i) => <Soft key={text}>{`${i + 1}  ${text}`}</Soft>) : null}
    </View>
  );
}
