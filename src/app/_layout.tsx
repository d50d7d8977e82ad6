import { AlegreyaSans_400Regular } from '@expo-google-fonts/alegreya-sans/400Regular';
import { AlegreyaSans_500Medium } from '@expo-google-fonts/alegreya-sans/500Medium';
import { AlegreyaSans_700Bold } from '@expo-google-fonts/alegreya-sans/700Bold';
import { YoungSerif_400Regular } from '@expo-google-fonts/young-serif/400Regular';
import { useFonts } from 'expo-font';
import { Slot, usePathname, type ErrorBoundaryProps } from 'expo-router';
import { StatusBar, View } from 'react-native';
import { useHome, useSettings } from '@/store';
import { Body, Button, Notice, NamingProvider, PaletteProvider, Screen, Shell, useThemePalette } from '@/ui';

export default function Layout() {
  const [fontsReady] = useFonts({
    AlegreyaSans_400Regular,
    AlegreyaSans_500Medium,
    AlegreyaSans_700Bold,
    YoungSerif_400Regular,
  });
  const { settings } = useSettings();
  const palette = useThemePalette(settings.theme);
  const { data: home, error } = useHome();
  const path = usePathname();
  const alone = path === '/stand' || path === '/print';
  if (!fontsReady) return <View style={{ flex: 1, backgroundColor: palette.paper }} />;
  return (
    <PaletteProvider palette={palette}>
      <NamingProvider naming={settings.naming}>
        <StatusBar />
        {alone ? (
          home || error ? (
            <Slot />
          ) : null
        ) : (
          <Shell
            banner={
              error ? (
                <Notice
                  problem
                  text={`Your log could not be opened (${error.message}). Private windows and full disks can be the cause.`}
                />
              ) : null
            }
          >
            {home || error ? <Slot /> : null}
          </Shell>
        )}
      </NamingProvider>
    </PaletteProvider>
  );
}

/** Whatever goes wrong in a screen: words and a way on, and everything that is stored stays stored. */
export function ErrorBoundary({ error, retry }: ErrorBoundaryProps) {
  return (
    <Screen title="This page broke">
      <Body>{`Nothing in your log has been lost. The fault was: ${error.message}`}</Body>
      <Button look="strong" label="Try again" onPress={() => void retry()} />
    </Screen>
  );
}
