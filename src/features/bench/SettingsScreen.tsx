import { useSettings, type Settings } from '@/store';
import { Body, Choice, Heading, Screen, Stepper } from '@/ui';
import { JudgingSettings } from './JudgingSettings';
import { SoundSettings } from './SoundSettings';
import { TuningSettings } from './TuningSettings';

/** How things are set: pitch, names, light, sound, judging. */
export function SettingsScreen() {
  const { settings, change } = useSettings();
  return (
    <Screen
      caption="Bench"
      title="Settings"
      beside={
        <>
          <Heading>Keys on the stand</Heading>
          <Body>
            Space starts and stops; the right pedal, arrow or Page down goes on; the left one, Page up or R
            plays the breath again. M metronome, D drone, H hides the pitch, ? shows this, Escape leaves.
          </Body>
        </>
      }
    >
      <Stepper
        label="Pitch standard, A4"
        value={settings.a4}
        low={392}
        high={466}
        text={`${settings.a4} Hz`}
        onChange={(a4) => void change({ a4 })}
      />
      <TuningSettings settings={settings} change={change} />
      <Choice<Settings['theme']>
        label="Light"
        value={settings.theme}
        onChange={(theme) => void change({ theme })}
        options={[
          { value: 'system', label: 'as the device' },
          { value: 'paper', label: 'paper' },
          { value: 'stage', label: 'dim stage' },
        ]}
      />
      <Choice<Settings['naming']>
        label="Names of notes"
        value={settings.naming}
        onChange={(naming) => void change({ naming })}
        options={[
          { value: 'english', label: 'C D E … B♭ B' },
          { value: 'german', label: 'C D E … B H' },
          { value: 'fixed-do', label: 'do re mi' },
        ]}
      />
      <SoundSettings settings={settings} change={change} />
      <JudgingSettings settings={settings} change={change} />
    </Screen>
  );
}
