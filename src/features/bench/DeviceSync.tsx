import { useState } from 'react';
import { View } from 'react-native';
import { measureRoundTrip, SourceProblem } from '@/audio';
import { fixed } from '@/core/verdict';
import { Body, Button, dayText, Heading, Notice } from '@/ui';
import type { SettingsProps } from './settingsProps';

/** Measures the way from loudspeaker to microphone by clicks, for this device. */
export function DeviceSync({ settings, change }: SettingsProps) {
  const [state, setState] = useState<'idle' | 'listening' | { problem: string } | { said: string }>('idle');
  const measure = async () => {
    setState('listening');
    try {
      const { device, seconds } = await measureRoundTrip();
      if (seconds === null) {
        setState({
          problem: 'The clicks were not heard. Turn the loudspeaker up, take headphones off, and try again.',
        });
        return;
      }
      await change({
        roundTrips: { ...settings.roundTrips, [device]: { seconds, measuredAt: new Date().toISOString() } },
      });
      setState({ said: `${device}: ${fixed(1000 * seconds, 0)} ms, taken off every attack from now on.` });
    } catch (error) {
      setState({
        problem:
          error instanceof SourceProblem ? error.message : `It could not be measured: ${String(error)}`,
      });
    }
  };
  const known = Object.entries(settings.roundTrips);
  return (
    <View style={{ gap: 6 }} testID="device-sync">
      <Heading>From loudspeaker to microphone</Heading>
      <Body>
        {known.length === 0
          ? 'Not measured yet: figures against the beat may be off by some tens of milliseconds.'
          : known
              .map(
                ([device, { seconds, measuredAt }]) =>
                  `${device}: ${fixed(1000 * seconds, 0)} ms${measuredAt ? `, measured on ${dayText(new Date(measuredAt))}` : ''}`,
              )
              .join('; ')}
      </Body>
      <Button
        label={state === 'listening' ? 'Listening to clicks …' : 'Measure it: eight clicks'}
        disabled={state === 'listening'}
        onPress={() => void measure()}
        testID="measure-sync"
      />
      {typeof state === 'object' ? (
        <Notice
          problem={'problem' in state}
          testID="sync-result"
          text={'problem' in state ? state.problem : state.said}
        />
      ) : null}
    </View>
  );
}
