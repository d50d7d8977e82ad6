import { useState } from 'react';
import { Pressable, StyleSheet, View, type GestureResponderEvent } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { Cents, Midi } from '@/core/base';
import { registerOf, writtenRange, type Instrument } from '@/core/instruments';
import type { MappedBreak, MappedNote, SeamState } from '@/core/ledger';
import { leaning, shortLeaning, spokenName } from '@/core/tuning';
import { fonts, keyHandler, usePalette, useNoteName, type Palette } from '@/ui';
import { countWord, STATE_WORDS, WALL } from './words';

/** What is chosen on the map: a note, or a break by the note above it. */
export type Chosen = { readonly note: Midi } | { readonly above: Midi };

interface MapBoreProps {
  readonly instrument: Instrument;
  readonly notes: readonly MappedNote[];
  readonly breaks: readonly MappedBreak[];
  /** Notes that are named beside their marks. */
  readonly named: ReadonlySet<Midi>;
  readonly chosen: Chosen | null;
  readonly onChoose: (chosen: Chosen) => void;
  /** Pixels for a semitone. */
  readonly step: number;
  /** Another place for the marks: what a slide or a temperature would make of them. */
  readonly shift?: (written: Midi) => Cents;
}

const PAD = 16;
const LEFT = 88;
const RIGHT = 150;
const FLARE = 14;
const MARK = 10;

/** The instrument as one upright column: each note where it lies, each seam as the line that is being mended. */
export function MapBore(props: MapBoreProps) {
  const { instrument, notes, breaks, chosen, onChoose, step } = props;
  const palette = usePalette();
  const nameOf = useNoteName();
  const [width, setWidth] = useState(0);
  const [focused, setFocused] = useState(false);
  const { low, high, height, y } = placesOn(instrument, step);
  const noteAt = (pixels: number) => {
    const near = low + (height - PAD - pixels) / step;
    return Math.min(high, Math.max(low, low + Math.round((near - low) / instrument.step) * instrument.step));
  };
  const note = chosen && 'note' in chosen ? chosen.note : null;
  const at = notes.find(({ written }) => written === (note ?? instrument.home));
  const move = (by: number) =>
    onChoose({ note: Math.min(high, Math.max(low, (note ?? instrument.home) + by)) });
  return (
    <View
      testID="map-bore"
      style={{ height, maxWidth: 460 }}
      onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
    >
      {width > 0 ? <Drawing {...props} width={width} height={height} y={y} palette={palette} /> : null}
      <View
        role="slider"
        aria-label="Note on the map"
        aria-orientation="vertical"
        aria-valuemin={low}
        aria-valuemax={high}
        aria-valuenow={note ?? instrument.home}
        aria-valuetext={
          at
            ? `${spokenName(at.written)}, ${registerOf(instrument, at.written).name} register, ${at.heard ? leaning(at.centre) : 'not heard yet'}`
            : ''
        }
        tabIndex={0}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        onStartShouldSetResponder={() => true}
        onResponderRelease={(event: GestureResponderEvent) =>
          onChoose({ note: noteAt(event.nativeEvent.locationY) })
        }
        {...keyHandler((key) => {
          const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 12, PageDown: -12 }[
            key
          ];
          if (by === undefined) return false;
          move(by * (Math.abs(by) === 1 ? instrument.step : 1));
          return true;
        })}
        style={[styles.touch, { borderColor: focused ? palette.gold : 'transparent' }]}
      />
      {breaks.map(({ below, above, reliability, state }) => (
        <Pressable
          key={above}
          role="button"
          testID={`break-${above}`}
          aria-label={`Break ${nameOf(below)} to ${nameOf(above)}: ${countWord(reliability)}, ${STATE_WORDS[state]}`}
          aria-pressed={chosen !== null && 'above' in chosen && chosen.above === above}
          onPress={() => onChoose({ above })}
          style={[styles.seam, { top: (y(below) + y(above)) / 2 - 22 }]}
        />
      ))}
    </View>
  );
}

interface DrawingProps extends Omit<MapBoreProps, 'onChoose'> {
  readonly width: number;
  readonly height: number;
  readonly y: (written: number) => number;
  readonly palette: Palette;
}

/** The same as a drawing only: of notes and breaks as they were found, nothing chosen. */
export function MapDrawing(
  props: Pick<DrawingProps, 'instrument' | 'notes' | 'breaks' | 'named' | 'step' | 'width' | 'palette'>,
) {
  const { height, y } = placesOn(props.instrument, props.step);
  return <Drawing {...props} height={height} y={y} chosen={null} />;
}

/** Where written notes lie on a bore that is drawn upright, in pixels. */
function placesOn(instrument: Instrument, step: number) {
  const { low, high } = writtenRange(instrument);
  const height = (high - low) * step + 2 * PAD;
  return { low, high, height, y: (written: number) => height - PAD - (written - low) * step };
}

function Drawing(props: DrawingProps) {
  const { instrument, notes, breaks, named, chosen, step, shift, width, height, y, palette } = props;
  const nameOf = useNoteName();
  const right = Math.max(LEFT + 80, width - RIGHT);
  const middle = (LEFT + right) / 2;
  const perCent = (right - LEFT - 12) / (2 * WALL);
  const x = (cents: Cents) => middle + perCent * Math.min(WALL, Math.max(-WALL, cents));
  return (
    <Svg width={width} height={height} pointerEvents="none">
      <Path
        d={`M${LEFT + FLARE} 1 H${right - FLARE} L${right} ${height - 1} H${LEFT} Z`}
        fill={palette.leaf}
        stroke={palette.hairline}
      />
      <Line x1={middle} x2={middle} y1={8} y2={height - 8} stroke={palette.hairline} strokeWidth={1.5} />
      {instrument.registers.map((register) => (
        <SvgText
          key={register.id}
          x={0}
          y={(y(register.low) + y(register.high)) / 2 + 5}
          fill={palette.softInk}
          fontFamily={fonts.text}
          fontSize={14}
        >
          {register.name}
        </SvgText>
      ))}
      {breaks.map((place) => (
        <SeamLine
          key={place.above}
          place={place}
          y={(y(place.below) + y(place.above)) / 2}
          from={LEFT - 10}
          to={right + 10}
          edge={width}
          chosen={chosen !== null && 'above' in chosen && chosen.above === place.above}
          palette={palette}
        />
      ))}
      {notes.map((note) => {
        const cents = note.centre + (shift?.(note.written) ?? 0);
        const isChosen = chosen !== null && 'note' in chosen && chosen.note === note.written;
        const wide = Math.min(44, Math.max(8, 2 * (note.spread ?? 3) * perCent));
        const thick = Math.min(MARK, step * instrument.step - 3);
        const left = x(cents) - wide / 2;
        const isNamed = named.has(note.written) || isChosen;
        const isLow = cents < 0 && !isChosen;
        const heard = note.heard !== null;
        return (
          <G key={note.written}>
            <Rect
              x={left}
              y={y(note.written) - thick / 2}
              width={wide}
              height={thick}
              rx={3}
              fill={isChosen ? palette.gold : heard ? palette.ink : palette.leaf}
              fillOpacity={isChosen || !heard ? 1 : 0.35 + 0.65 * note.certainty}
              stroke={isChosen ? palette.goldText : heard ? palette.ink : palette.softInk}
              strokeWidth={heard ? 1 : 1.2}
              {...(!heard && { strokeDasharray: '3 2' })}
            />
            {isNamed ? (
              <SvgText
                x={isLow ? left - 5 : left + wide + 5}
                y={y(note.written) + 5}
                textAnchor={isLow ? 'end' : 'start'}
                fill={isChosen ? palette.goldText : palette.ink}
                fontFamily={fonts.bold}
                fontSize={14}
              >
                {`${nameOf(note.written)} ${shortLeaning(cents)}`}
              </SvgText>
            ) : null}
          </G>
        );
      })}
    </Svg>
  );
}

/** How a seam is drawn: the better it holds, the more of the line is there. */
const LINES: Readonly<Record<SeamState, { width: number; dash?: string; dull: boolean }>> = {
  gold: { width: 5, dull: false },
  nearly: { width: 4, dash: '26 4', dull: false },
  mending: { width: 3.2, dash: '13 7', dull: false },
  weak: { width: 2.6, dash: '7 8', dull: false },
  few: { width: 1.6, dash: '2 6', dull: true },
};

interface SeamLineProps {
  readonly place: MappedBreak;
  readonly y: number;
  readonly from: number;
  readonly to: number;
  readonly edge: number;
  readonly chosen: boolean;
  readonly palette: Palette;
}

function SeamLine({ place, y, from, to, edge, chosen, palette }: SeamLineProps) {
  const { width, dash, dull } = LINES[place.state];
  const third = (to - from) / 3;
  // A break in a vessel is never quite straight; each has its own bend, always the same.
  const bend = ((place.above * 7) % 5) - 2;
  return (
    <G>
      <Path
        d={`M${from} ${y + 2} C${from + third} ${y - 3 + bend} ${from + 2 * third} ${y + 3 - bend} ${to} ${y - 1}`}
        fill="none"
        stroke={dull ? palette.softInk : palette.gold}
        strokeWidth={width}
        {...(dash !== undefined && { strokeDasharray: dash })}
      />
      <SvgText
        x={edge}
        y={y - 1}
        textAnchor="end"
        fill={dull ? palette.softInk : palette.goldText}
        fontFamily={fonts.bold}
        fontSize={15}
        textDecoration={chosen ? 'underline' : 'none'}
      >
        {countWord(place.reliability)}
      </SvgText>
      {place.reliability.of > 0 ? (
        <SvgText
          x={edge}
          y={y + 15}
          textAnchor="end"
          fill={palette.softInk}
          fontFamily={fonts.text}
          fontSize={14}
        >
          {STATE_WORDS[place.state]}
        </SvgText>
      ) : null}
    </G>
  );
}

const styles = StyleSheet.create({
  touch: {
    position: 'absolute',
    top: 0,
    left: 0,
    right: 0,
    bottom: 0,
    borderWidth: 2,
    borderRadius: 6,
    cursor: 'pointer',
  },
  seam: { position: 'absolute', right: 0, width: 104, height: 44 },
});
