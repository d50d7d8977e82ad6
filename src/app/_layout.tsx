import { AlegreyaSans_400Regular } from '@expo-google-fonts/alegreya-sans/400Regular';
import { AlegreyaSans_500Medium } from '@expo-google-fonts/alegreya-sans/500Medium';
import { AlegreyaSans_700Bold } from '@expo-google-fonts/alegreya-sans/700Bold';
import { YoungSerif_400Regular } from '@expo-google-fonts/young-serif/400Regular';
import { Slot, usePathname, type ErrorBoundaryProps } from 'expo-router';
import { StatusBar, View } from 'react-native';
import { useEffect } from 'react';
import { Banner } from '@/features/care';
import { standAhead } from '@/features/planning';
import { digestTake } from '@/features/take';
import { judgeBy, keepUp, readAhead, useHome, useSettings } from '@/store';
import {
  Body,
  Button,
  loadPagesAhead,
  NamingProvider,
  PaletteProvider,
  PartMissing,
  Problems,
  Screen,
  Shell,
  useLettering,
  useThemePalette,
} from '@/ui';

/** What is due in the log is looked after when the first page has been shown. */
const SETTLED_MS = 2500;

judgeBy(digestTake);

export default function Layout() {
  const lettered = useLettering({
    AlegreyaSans_400Regular,
    AlegreyaSans_500Medium,
    AlegreyaSans_700Bold,
    YoungSerif_400Regular,
  });
  const { settings } = useSettings();
  const palette = useThemePalette(settings.theme);
  const { data: home, error } = useHome();
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
  if (!lettered) return <View style={{ flex: 1, backgroundColor: palette.paper }} />;
  return (
    <PaletteProvider palette={palette}>
      <NamingProvider naming={settings.naming}>
        <StatusBar />
        {alone ? (
          home || error ? (
            <Slot />
          ) : null
        ) : (
          <Shell banner={<Banner error={error} />}>{home || error ? <Slot /> : null}</Shell>
        )}
        <Problems />
      </NamingProvider>
    </PaletteProvider>
  );
}

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
