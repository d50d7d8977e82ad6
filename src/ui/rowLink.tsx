import { Link, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, StyleSheet, type StyleProp, type ViewStyle } from 'react-native';

interface RowLinkProps {
  readonly href: Href;
  readonly style?: StyleProp<ViewStyle>;
  readonly testID?: string;
  readonly children: ReactNode;
}

/** A whole row that leads elsewhere: a true link, so that Enter follows it and it can be opened beside. */
export function RowLink({ href, style, testID, children }: RowLinkProps) {
  return (
    <Link href={href} asChild>
      <Pressable testID={testID} style={StyleSheet.flatten([styles.row, style])}>
        {children}
      </Pressable>
    </Link>
  );
}

const styles = StyleSheet.create({ row: { minHeight: 48 } });
