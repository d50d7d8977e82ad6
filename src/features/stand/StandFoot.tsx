import { StyleSheet, View } from 'react-native';
import type { StandEngine } from './standEngine';
import type { StandState } from './standState';
import { Button } from '@/ui';

interface StandFootProps {
  readonly engine: StandEngine;
  readonly state: StandState;
  readonly onLeave: () => void;
}

/** At most three keys, large enough to be hit at arm's length. */
export function StandFoot({ engine, state, onLeave }: StandFootProps) {
  const { phase } = state;
  if (phase === 'counting' || phase === 'playing')
    return (
      <View style={styles.foot}>
        {state.free ? (
          <Button
            large
            grow={1}
            label={state.drone ? 'Drone off' : 'Drone'}
            onPress={engine.toggleDrone}
            testID="drone"
          />
        ) : (
          <Button large grow={1} label="Again" onPress={engine.again} testID="again" />
        )}
        <Button look="main" large grow={1.4} label="Stop" onPress={engine.stop} testID="stop" />
        <Button large grow={1} label={state.hidden ? 'Show' : 'Hide'} onPress={engine.toggleHidden} />
      </View>
    );
  if (phase === 'paused' || phase === 'waiting')
    return (
      <View style={styles.foot}>
        <Button large grow={1} label="Give up" onPress={onLeave} />
        <Button large grow={1} label="Finish" onPress={engine.stop} testID="finish" />
        <Button
          look="main"
          large
          grow={1.4}
          label={phase === 'waiting' ? 'Begin' : 'Go on'}
          onPress={engine.next}
          testID="go-on"
        />
      </View>
    );
  return (
    <View style={styles.foot}>
      <Button large grow={1} label="Leave" onPress={onLeave} />
      <Button
        look="main"
        large
        grow={1.6}
        disabled={phase === 'measuring' || phase === 'opening'}
        label={phase === 'problem' ? 'Try again' : 'Start'}
        onPress={engine.start}
        testID="start"
      />
    </View>
  );
}

const styles = StyleSheet.create({
  foot: { flexDirection: 'row', gap: 12, width: '100%', maxWidth: 640, alignSelf: 'center' },
});
