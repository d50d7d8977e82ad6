import { Link, usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { AreaIcon } from './areaIcon';
import { fonts, usePalette, useShape } from './theme';

const AREAS = [
  { path: '/', label: 'Today', area: 'today' },
  { path: '/practise', label: 'Practise', area: 'practise' },
  { path: '/map', label: 'Map', area: 'map' },
  { path: '/log', label: 'Log', area: 'log' },
  { path: '/bench', label: 'Bench', area: 'bench' },
] as const;

const isAt = (path: string, here: string) =>
  path === '/'
    ? here === '/' || ['/week', '/session'].some((part) => here === part || here.startsWith(`${part}/`))
    : here === path || here.startsWith(`${path}/`);

/** A phone whose page is shown at twice its size: five words still stand beside each other. */
const NARROW = 300;

/** The five areas: along the bottom on a phone, down the side on a wide screen. */
export function Shell({ banner, children }: { banner?: ReactNode; children: ReactNode }) {
  const palette = usePalette();
  const { wide, low, width } = useShape();
  const here = usePathname();
  const side = wide || low;
  return (
    <View style={[side ? styles.row : styles.column, { backgroundColor: palette.paper }]}>
      {side ? null : banner}
      {side ? null : <View style={styles.fill}>{children}</View>}
      <View
        role="navigation"
        aria-label="Areas"
        style={[
          side ? styles.rail : styles.bar,
          low && styles.lowRail,
          { backgroundColor: palette.leaf, borderColor: palette.hairline },
        ]}
      >
        {wide ? <Text style={[styles.name, { color: palette.goldText }]}>Gold Reed</Text> : null}
        {AREAS.map(({ path, label, area }) => {
          const current = isAt(path, here);
          const colour = current ? palette.ink : palette.softInk;
          return (
            <Link
              key={path}
              href={path}
              aria-current={current ? 'page' : undefined}
              style={[
                styles.area,
                side ? styles.railArea : styles.barArea,
                current && styles.current,
                { color: colour },
              ]}
            >
              <View style={side ? styles.railInside : styles.barInside}>
                <AreaIcon area={area} colour={colour} />
                <Text
                  style={[
                    styles.label,
                    width < NARROW && styles.narrow,
                    current && styles.current,
                    { color: colour },
                  ]}
                >
                  {label}
                </Text>
              </View>
            </Link>
          );
        })}
      </View>
      {side ? (
        <View style={styles.fill}>
          {banner}
          {children}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { flex: 1, flexDirection: 'column' },
  row: { flex: 1, flexDirection: 'row' },
  fill: { flex: 1, minWidth: 0, minHeight: 0 },
  bar: { flexDirection: 'row', borderTopWidth: 1, paddingHorizontal: 4 },
  rail: { width: 190, borderRightWidth: 1, paddingVertical: 32, paddingHorizontal: 26, gap: 6 },
  lowRail: { width: 110, paddingVertical: 10, paddingHorizontal: 16, gap: 0 },
  name: { fontFamily: fonts.display, fontSize: 22, marginBottom: 22 },
  area: { fontFamily: fonts.text, fontSize: 16, textDecorationLine: 'none' },
  barArea: { flex: 1, paddingVertical: 8, textAlign: 'center' },
  railArea: { paddingVertical: 11 },
  barInside: { alignItems: 'center', gap: 2, minHeight: 44, justifyContent: 'center' },
  railInside: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  label: { fontFamily: fonts.text, fontSize: 16 },
  narrow: { fontSize: 12 },
  current: { fontFamily: fonts.bold },
});
