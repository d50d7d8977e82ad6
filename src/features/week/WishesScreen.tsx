import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { dateSchema, wishesSchema, type Wishes } from '@/core/plan';
import { LEVELS, PURPOSES } from '@/core/music';
import { plural } from '@/core/verdict';
import { usePlanning, type Planning } from '@/features/planning';
import { useSettings } from '@/store';
import { Button, Choice, Field, Heading, Notice, Screen, Soft, Stepper } from '@/ui';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** What the plan goes by: told here and nowhere else. */
export function WishesScreen() {
  const planning = usePlanning();
  return (
    <Screen caption="The week" title="What the plan goes by">
      {planning ? <Wished planning={planning} /> : <Soft>Reading …</Soft>}
    </Screen>
  );
}

function Wished({ planning: { plan, change, date } }: { planning: Planning }) {
  const router = useRouter();
  const { settings, change: changeSettings } = useSettings();
  const { wishes } = plan;
  const set = (part: Partial<Wishes>) => void change((before) => ({ wishes: { ...before.wishes, ...part } }));
  return (
    <>
      <Stepper
        label="Minutes a day"
        value={wishes.minutes}
        low={5}
        high={120}
        step={5}
        text={`${wishes.minutes} min`}
        onChange={(minutes) => set({ minutes })}
      />
      <View>
        <Soft>Days of practice</Soft>
        <View style={styles.toggles}>
          {DAYS.map((name, i) => (
            <Toggle
              key={name}
              label={name}
              on={wishes.days[i] === true}
              onChange={(on) => set({ days: wishes.days.map((was, k) => (k === i ? on : was)) })}
            />
          ))}
        </View>
        {wishes.days.some(Boolean) ? null : (
          <Soft>No day is chosen: Today still offers one when you come.</Soft>
        )}
      </View>
      <View>
        <Soft>What you want to work on; without a choice the plan goes by what was heard</Soft>
        <View style={styles.toggles}>
          {PURPOSES.map((purpose) => (
            <Toggle
              key={purpose}
              label={purpose}
              on={wishes.purposes.includes(purpose)}
              onChange={(on) =>
                set({
                  purposes: on
                    ? [...wishes.purposes, purpose]
                    : wishes.purposes.filter((each) => each !== purpose),
                })
              }
            />
          ))}
        </View>
      </View>
      <Choice
        label="How far along"
        value={settings.level}
        onChange={(level) => void changeSettings({ level })}
        options={LEVELS.map((value) => ({ value, label: value }))}
      />
      <Event event={wishes.event} onChange={(event) => set({ event })} />
      <View>
        <Heading>Sore?</Heading>
        <Soft>
          Lip, jaw or hand: say so, and three days are half as long, with nothing high, loud or held to the
          end. If it hurts, stop; if it stays, see a doctor.
        </Soft>
        <Button
          look="quiet"
          label={wishes.soreOn === date ? 'No longer sore' : 'I am sore today'}
          onPress={() => set({ soreOn: wishes.soreOn === date ? null : date })}
        />
      </View>
      <View>
        <Heading>Tempo</Heading>
        <Soft>By the metronome’s traditional steps, drill by drill.</Soft>
        <Stepper
          label="When it was clean, faster by"
          value={wishes.notches.up}
          low={0}
          high={4}
          text={plural(wishes.notches.up, 'step')}
          onChange={(up) => set({ notches: { ...wishes.notches, up } })}
        />
        <Stepper
          label="When a third of it came open, slower by"
          value={wishes.notches.down}
          low={0}
          high={4}
          text={plural(wishes.notches.down, 'step')}
          onChange={(down) => set({ notches: { ...wishes.notches, down } })}
        />
      </View>
      <Button
        look="strong"
        label="Done"
        onPress={() => (router.canGoBack() ? router.back() : router.replace('/week'))}
      />
    </>
  );
}

function Toggle({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Button
      look={on ? 'strong' : 'plain'}
      label={on ? `✓ ${label}` : label}
      pressed={on}
      onPress={() => onChange(!on)}
    />
  );
}

function Event({ event, onChange }: { event: Wishes['event']; onChange: (event: Wishes['event']) => void }) {
  const [name, setName] = useState(event?.name ?? '');
  const [date, setDate] = useState(event?.date ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const keep = () => {
    if (!dateSchema.safeParse(date).success)
      return setProblem('Date: must be a date like 2026-12-12, with year, month and day.');
    const read = wishesSchema.shape.event.safeParse({ name, date });
    if (!read.success) return setProblem('Name: must have a letter at least, and 60 or fewer.');
    setProblem(null);
    onChange(read.data);
  };
  return (
    <View style={styles.event}>
      <Heading>Is there a day you get ready for?</Heading>
      <Field label="Name of the event" placeholder="What it is" value={name} onChange={setName} />
      <Field label="Date of the event" placeholder="2026-12-12" value={date} onChange={setDate} />
      {problem ? <Notice problem text={problem} /> : null}
      <View style={styles.toggles}>
        <Button label="Keep it" onPress={keep} />
        {event ? (
          <Button
            look="quiet"
            label="There is none any more"
            onPress={() => {
              setName('');
              setDate('');
              onChange(null);
            }}
          />
        ) : null}
      </View>
      <Soft>In its last two days nothing new is begun; on its morning there is only a quiet warm-up.</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  toggles: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 6 },
  event: { gap: 8 },
});
