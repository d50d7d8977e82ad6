import { useState, type ComponentProps } from 'react';
import { StyleSheet, View } from 'react-native';
import { DAY_MS } from '@/core/base';
import {
  forgetAside,
  trustClock,
  useAside,
  useClock,
  useSession,
  useSettingsProblem,
  useUpkeep,
} from '@/store';
import { download, Notice, useUpdate, wholeDay } from '@/ui';

/** Over the page, apart from its edges and from one another. */
const Told = (notice: ComponentProps<typeof Notice>) => (
  <View style={styles.told}>
    <Notice {...notice} />
  </View>
);

/** What concerns all of the log: that it could not be opened, is being brought up to date, or is not what the player left. */
export function Banner({ error, isSlow }: { error: Error | undefined; isSlow: boolean }) {
  if (error)
    return (
      <Told
        problem
        text={`Your log could not be opened (${error.message}). Private windows and full disks can be the cause.`}
        action={{ label: 'Try again', onPress: () => window.location.reload() }}
      />
    );
  if (isSlow)
    return (
      <Told
        problem
        testID="slow-opening"
        text="Your log has not opened yet: the browser, or another tab, is holding it. Nothing in it is lost. If this stays, close every tab of this app and open it anew."
        action={{ label: 'Try again', onPress: () => window.location.reload() }}
      />
    );
  return (
    <>
      <Upkeep />
      <NewVersion />
      <ClockJumped />
      <SettingsLost />
      <PutAside />
    </>
  );
}

function Upkeep() {
  const { state, stop } = useUpkeep();
  return state ? (
    <Told
      testID="upkeep"
      text={`Your log is being brought up to date: ${state.done} of ${state.of} takes. You can go on meanwhile.`}
      action={{ label: 'Stop, and go on another time', onPress: stop }}
    />
  ) : null;
}

/** Stands for the id of a session where there is none. */
const NO_SESSION = '';

/** Asked where nothing is being played; passed over, it is asked again when the session is over. */
function NewVersion() {
  const update = useUpdate();
  const { data: session } = useSession();
  const [passedOver, passOver] = useState<string | null>(null);
  const now = session?.id ?? NO_SESSION;
  return update && passedOver !== now ? (
    <Told
      testID="update"
      text="There is a new version of Gold Reed. Your log stays as it is, and other tabs go on with the old one."
      action={{ label: 'Take it now', onPress: update }}
      other={{
        label: session ? 'After this session' : 'When Gold Reed is opened next',
        onPress: () => passOver(now),
      }}
    />
  ) : null;
}

function ClockJumped() {
  const { data: clock } = useClock();
  if (!clock?.jumped || !clock.newest) return null;
  const [said, before] = [clock.now, clock.newest].map((date) => wholeDay(date.getTime() / DAY_MS));
  return (
    <Told
      problem
      testID="clock"
      text={
        clock.jumped === 'ahead'
          ? `Your clock says ${said}, and Gold Reed was last open on ${before}. If that is not so, set it right before you play: takes are filed by it. Nothing is removed from the bin meanwhile.`
          : `Your clock says ${said}, but Gold Reed was open on ${before} already. Set it right before you play: takes are filed by it. Nothing is removed from the bin meanwhile.`
      }
      action={{ label: 'The clock is right', onPress: () => void trustClock() }}
    />
  );
}

function SettingsLost() {
  const { data: problem } = useSettingsProblem();
  return problem ? (
    <Told
      problem
      testID="settings-problem"
      text={`Your settings could not be used, and the usual ones stand in for them. Yours are kept (${problem}).`}
    />
  ) : null;
}

function PutAside() {
  const { data: aside } = useAside();
  return aside?.map(({ id, text, problem, words }) => (
    <Told
      key={id}
      problem
      testID="put-aside"
      text={`${words} (${problem})`}
      action={{
        label: 'Save what was there as a file',
        onPress: () => download(`${id.replace(/\W+/g, '-')}.json`, text, 'application/json'),
      }}
      other={{ label: 'Put this away', onPress: () => void forgetAside(id) }}
    />
  ));
}

const styles = StyleSheet.create({
  told: { paddingTop: 8, paddingHorizontal: 10, width: '100%', maxWidth: 1080 },
});
