import { AlegreyaSans_400Regular } from '@expo-google-fonts/alegreya-sans/400Regular';
import { AlegreyaSans_500Medium } from '@expo-google-fonts/alegreya-sans/500Medium';
import { AlegreyaSans_700Bold } from '@expo-google-fonts/alegreya-sans/700Bold';
import { YoungSerif_400Regular } from '@expo-google-fonts/young-serif/400Regular';
import { Slot, usePathname, type ErrorBoundaryProps } from 'expo-router';
import { StatusBar, View } from 'react-native';
import { useEffect, useState } from 'react';
import { standAhead } from '@/features/planning';
import { digestTake } from '@/features/take';
import {
  judgeBy,
  keepUp,
  readAhead,
  useHome,
  useSession,
  useSettings,
  useSettingsProblem,
  useUpkeep,
} from '@/store';
import {
  Body,
  Button,
  Notice,
  loadPagesAhead,
  NamingProvider,
  PaletteProvider,
  PartMissing,
  Problems,
  Screen,
  Shell,
  useLettering,
  useThemePalette,
  useUpdate,
} from '@/ui';

/** What is due in the log is looked after when the first page has been shown. */
const SETTLED_MS = 2500;

/** Stands for the id of a session where there is none. */
const NO_SESSION = '';

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

/** What concerns all of the log: that it could not be opened, is being brought up to date, or that settings are not the player's. */
function Banner({ error }: { error: Error | undefined }) {
  const { state, stop } = useUpkeep();
  const { data: settingsProblem } = useSettingsProblem();
  const update = useUpdate();
  const { data: session } = useSession();
  const [passedOver, passOver] = useState<string | null>(null);
  if (error)
    return (
      <Notice
        problem
        text={`Your log could not be opened (${error.message}). Private windows and full disks can be the cause.`}
      />
    );
  return (
    <>
      {state ? (
        <Notice
          testID="upkeep"
          text={`Your log is being brought up to date: ${state.done} of ${state.of} takes. You can go on meanwhile.`}
          action={{ label: 'Stop, and go on another time', onPress: stop }}
        />
      ) : null}
      {update && passedOver !== (session?.id ?? NO_SESSION) ? (
        <Notice
          testID="update"
          text="There is a new version of Gold Reed. Your log stays as it is; what is being played in other tabs is finished by the old one."
          action={{ label: 'Take it now', onPress: update }}
          other={{
            label: session ? 'After this session' : 'When Gold Reed is opened next',
            onPress: () => passOver(session?.id ?? NO_SESSION),
          }}
        />
      ) : null}
      {settingsProblem ? (
        <Notice
          problem
          testID="settings-problem"
          text={`Your settings could not be used, and the usual ones stand in for them. Yours are kept (${settingsProblem}).`}
        />
      ) : null}
    </>
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
