import { Slot, usePathname, type ErrorBoundaryProps } from 'expo-router';
import { StatusBar } from 'react-native';
import { useEffect } from 'react';
import { Banner } from '@/features/care';
import { standAhead } from '@/features/planning';
import { digestTake } from '@/features/take';
import { judgeBy, keepUp, readAhead, useHome, useSettings, useSlowOpening } from '@/store';
import {
  Body,
  Button,
  dayText,
  loadPagesAhead,
  NamingProvider,
  PaletteProvider,
  PartMissing,
  Problems,
  Screen,
  Shell,
  useThemePalette,
} from '@/ui';

/** What is due in the log is looked after when the first page has been shown. */
const SETTLED_MS = 2500;

judgeBy(digestTake);

export default function Layout() {
  const { settings } = useSettings();
  const palette = useThemePalette(settings.theme);
  const { data: home, error } = useHome();
  const isSlow = useSlowOpening(home !== undefined || error !== undefined);
  useEffect(() => {
    if (!home) return;
    const later = setTimeout(
      () =>
        void keepUp().then(() =>
          // Nobody waits for it: what is wrong is told by the page that asks.
          readAhead()
            .then(({ settings: own, played }) => standAhead(own, played))
            .then(loadPagesAhead)
            .catch(() => undefined),
        ),
      SETTLED_MS,
    );
    return () => clearTimeout(later);
  }, [home]);
  const path = usePathname();
  const alone =
    path === '/stand' ||
    path === '/session' ||
    path === '/print' ||
    path === '/week/print' ||
    path === '/report';
  return (
    <PaletteProvider palette={palette}>
      <NamingProvider naming={settings.naming}>
        <StatusBar />
        {alone && !isSlow ? (
          home || error ? (
            <Slot />
          ) : null
        ) : (
          <Shell banner={<Banner error={error} isSlow={isSlow} />}>
            {home || error ? <Slot /> : <Opening path={path} />}
          </Shell>
        )}
        <Problems />
      </NamingProvider>
    </PaletteProvider>
  );
}

/** What public/index.html shows before there is an app, until the log is open. */
const Opening = ({ path }: { path: string }) =>
  path === '/' ? (
    <Screen caption={dayText(new Date())} title="Today">
      {null}
    </Screen>
  ) : null;

/** Whatever goes wrong in a screen: words and a way on, and everything that is stored stays stored. */
export function ErrorBoundary({ error, retry }: ErrorBoundaryProps) {
  const isMissing = error instanceof PartMissing;
  return (
    <Screen title={isMissing ? 'This page is not all there' : 'This page broke'}>
      <Body>
        {isMissing
          ? `${error.message} Nothing that you played is lost. Loading the page anew takes the new version.`
          : `Nothing in your log has been lost. The fault was: ${error.message}`}
      </Body>
      <Button look="strong" label="Try again" onPress={() => void retry()} />
      <Button label="Load the page anew" onPress={() => window.location.reload()} />
      <Button label="To Today" onPress={() => window.location.assign('/')} />
    </Screen>
  );
}
