import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { barSpans, scoreBeats, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { spokenName } from '@/core/tuning';
import { Soft } from '../text';
import { fonts, usePalette } from '../theme';
import { Pictures } from './Pictures';

interface NotationProps {
  readonly score: Score;
  readonly instrument: Instrument;
  /** Size of a stave; 1.35 is legible at arm's length on a phone. */
  readonly scale?: number;
  /** Room that there is: the music becomes smaller for it, and what still finds none is out of sight while it is not marked. */
  readonly height?: number;
  readonly marked?: ReadonlySet<number>;
  /** Black on white whatever the theme, engraved for this width on paper, in CSS pixels, whatever the screen’s. */
  readonly paper?: number;
  /** Some bars of a longer piece: the number of the first, and whether more come after. */
  readonly part?: { readonly firstBar: number; readonly goesOn: boolean };
}

/** The latest engraving, in the browser's performance timeline. */
const ENGRAVE_MEASURE = 'gold-reed-engrave';
const PRINT = { ink: '#000000', goldText: '#000000' } as const;

/** A score as music, in the theme's ink, as wide as it is given room for. The engraver is loaded when first needed. */
export function Notation({ score, instrument, scale = 1.35, height, marked, paper, part }: NotationProps) {
  const theme = usePalette();
  const palette = paper ? PRINT : theme;
  const element = useRef<HTMLDivElement>(null);
  const [seen, setWidth] = useState(0);
  const width = paper ?? seen;
  const [problem, setProblem] = useState<string | null>(null);
  const [up, setUp] = useState(0);
  const { ink, goldText } = palette;
  useEffect(() => {
    let wanted = true;
    if (width === 0 || score.notes.length === 0) return;
    Promise.all([import('./engrave'), document.fonts.load(`20px ${fonts.text}`)])
      .then(async ([{ engrave, fontsReady }]) => {
        await fontsReady();
        if (!wanted || !element.current) return;
        const options = {
          width,
          scale,
          ink,
          gold: goldText,
          font: fonts.bold,
          ...(height !== undefined && { height }),
          ...(marked && { marked }),
          ...part,
        };
        const start = performance.now();
        const engraved = engrave(element.current, score, instrument, options);
        performance.clearMeasures(ENGRAVE_MEASURE);
        performance.measure(ENGRAVE_MEASURE, { start, detail: score.notes.length });
        setUp(Math.min(engraved.marked, Math.max(0, engraved.height - (height ?? Infinity))));
        setProblem(null);
      })
      .catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)));
    return () => {
      wanted = false;
    };
  }, [score, instrument, width, height, scale, ink, goldText, marked, part]);
  return (
    <View
      onLayout={(event: LayoutChangeEvent) => setWidth(Math.floor(event.nativeEvent.layout.width))}
      style={styles.whole}
    >
      {score.pictures.length > 0 ? <Pictures score={score} /> : null}
      {score.notes.length > 0 ? (
        <View
          role="img"
          aria-label={inWords(score, instrument)}
          testID="notation"
          style={height !== undefined && { maxHeight: height, overflow: 'hidden' }}
        >
          <div ref={element} className={paper ? 'music-on-paper' : undefined} style={{ marginTop: -up }} />
        </View>
      ) : null}
      {problem ? <Soft>{`The music could not be drawn: ${problem}`}</Soft> : null}
    </View>
  );
}

function inWords(score: Score, instrument: Instrument): string {
  const row = score.notes.map((note) => note.written);
  const few = row
    .slice(0, 12)
    .map((note) => spokenName(note))
    .join(', ');
  return `Music for ${instrument.name}, ${row.length} notes in ${barSpans(score, scoreBeats(score)).length} bars, from ${spokenName(Math.min(...row))} to ${spokenName(Math.max(...row))}: ${few}${row.length > 12 ? ' and so on' : ''}`;
}

const styles = StyleSheet.create({ whole: { width: '100%', gap: 10 } });
