import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Soft, Title } from './text';
import { usePalette, useShape } from './theme';

interface ScreenProps {
  /** Small line above the title. */
  readonly caption?: string;
  readonly title: string;
  readonly children?: ReactNode;
  /** Second pane on wide screens; below the rest on a phone. */
  readonly beside?: ReactNode;
  /** Stays at the bottom, above the navigation. */
  readonly foot?: ReactNode;
}

/** The frame that every screen but the stand shares. */
export function Screen({ caption, title, children, beside, foot }: ScreenProps) {
  const palette = usePalette();
  const { wide } = useShape();
  return (
    <View role="main" style={[styles.fill, { backgroundColor: palette.paper }]}>
      <ScrollView style={styles.fill} contentContainerStyle={[styles.content, wide && styles.wideContent]}>
        <View style={styles.head}>
          {caption ? <Soft>{caption}</Soft> : null}
          <Title>{title}</Title>
        </View>
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
