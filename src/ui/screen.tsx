import { useDeferredValue, useState, type ReactElement, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View, type ViewStyle } from 'react-native';
import { Soft, Title } from './text';
import { usePalette, useShape } from './theme';

/** Rows that are brought in at once, when the end of those before comes near. */
const BATCH = 40;
/** Rows that are there at once: more than the tallest screen shows beside the head of a page. */
const FIRST_ROWS = 14;
/** A row that is far from the window is neither laid out nor painted; React Native’s types do not know of it, browsers do. */
const OUT_OF_SIGHT = { contentVisibility: 'auto', containIntrinsicSize: 'auto 96px' } as ViewStyle;

/** Many rows, brought in as they are come to. */
export interface ScreenRows<T> {
  readonly rows: readonly T[];
  readonly keyOf: (row: T) => string;
  readonly render: (row: T) => ReactElement;
  /** Nearly at the end of them. */
  readonly onEnd: () => void;
}

interface ScreenProps<T> {
  /** Small line above the title. */
  readonly caption?: string;
  readonly title: string;
  readonly children?: ReactNode;
  /** Second pane on wide screens; below the rest on a phone. */
  readonly beside?: ReactNode;
  /** Comes after the children, however long. */
  readonly list?: ScreenRows<T>;
  /** Stays at the bottom, above the navigation. */
  readonly foot?: ReactNode;
}

/** The frame that every screen but the stand shares. */
export function Screen<T>({ caption, title, children, beside, list, foot }: ScreenProps<T>) {
  const palette = usePalette();
  const { wide } = useShape();
  const [asked, setAsked] = useState(BATCH);
  const shown = useDeferredValue(asked, FIRST_ROWS);
  const head = (
    <View style={styles.head}>
      {caption ? <Soft>{caption}</Soft> : null}
      <Title>{title}</Title>
    </View>
  );
  const content = [styles.content, wide && styles.wideContent];
  if (list)
    return (
      <View role="main" style={[styles.fill, { backgroundColor: palette.paper }]}>
        <ScrollView
          style={styles.fill}
          contentContainerStyle={[content, styles.rows]}
          scrollEventThrottle={60}
          onScroll={({ nativeEvent: { contentOffset, contentSize, layoutMeasurement } }) => {
            if (contentOffset.y + 2 * layoutMeasurement.height < contentSize.height) return;
            if (asked < list.rows.length) setAsked(asked + BATCH);
            else list.onEnd();
          }}
        >
          <View style={styles.header}>
            {head}
            {children}
          </View>
          {list.rows.slice(0, shown).map((row) => (
            <View key={list.keyOf(row)} style={OUT_OF_SIGHT}>
              {list.render(row)}
            </View>
          ))}
          <View style={styles.header}>{beside}</View>
        </ScrollView>
      </View>
    );
  return (
    <View role="main" style={[styles.fill, { backgroundColor: palette.paper }]}>
      <ScrollView style={styles.fill} contentContainerStyle={content}>
        {head}
        {wide && beside ? (
          <View style={styles.panes}>
            <View style={styles.pane}>{children}</View>
            <View style={[styles.pane, styles.second, { borderLeftColor: palette.hairline }]}>{beside}</View>
          </View>
        ) : (
          <View style={styles.single}>
            {children}
            {beside}
          </View>
        )}
      </ScrollView>
      {foot ? <View style={[styles.foot, wide && styles.wideFoot]}>{foot}</View> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  fill: { flex: 1 },
  content: { padding: 18, paddingBottom: 28, gap: 18, width: '100%', maxWidth: 640, alignSelf: 'center' },
  wideContent: { maxWidth: 1080, padding: 36, alignSelf: 'flex-start' },
  head: { gap: 2 },
  rows: { gap: 0 },
  header: { gap: 18, paddingBottom: 18 },
  single: { gap: 20 },
  panes: { flexDirection: 'row', gap: 36 },
  pane: { flex: 1, gap: 20, minWidth: 0 },
  second: { borderLeftWidth: 1, paddingLeft: 36 },
  foot: {
    paddingHorizontal: 18,
    paddingVertical: 12,
    flexDirection: 'row',
    gap: 12,
    width: '100%',
    maxWidth: 640,
    alignSelf: 'center',
  },
  wideFoot: { maxWidth: 1080, paddingHorizontal: 36, alignSelf: 'flex-start' },
});
