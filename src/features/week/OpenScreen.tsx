import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { failure, type Outcome } from '@/core/base';
import { readLink, readShared, type Shared } from '@/core/formats/shared';
import { sayDay, type Block } from '@/core/plan';
import { nameWithin, type Instrument } from '@/core/instruments';
import { plural } from '@/core/verdict';
import { PlanStrand, useBeginSession, usePlanning } from '@/features/planning';
import { changePlan, instrumentIn, keepRoutine, newId, useSettings } from '@/store';
import { askForFile, Body, Button, dayText, Heading, Notice, Screen, Soft, useNoteName } from '@/ui';

/** What somebody sent: looked at before anything is taken. */
export function OpenScreen() {
  const [found, setFound] = useState<Outcome<Shared> | null>(null);
  useEffect(() => {
    const part = window.location.hash.slice(1);
    if (part !== '') void readLink(part).then(setFound);
  }, []);
  const pick = async () => {
    const file = await askForFile('.json,application/json');
    if (!file) return;
    try {
      setFound(readShared(await file.text()));
    } catch {
      setFound(failure('it could not be read from the disk'));
    }
  };
  return (
    <Screen title={found?.ok ? 'Sent to you' : 'Open what was sent'}>
      {found && !found.ok ? (
        <Notice problem text={`This cannot be taken: ${found.problem}. Nothing was changed.`} />
      ) : null}
      {found?.ok ? (
        <Looked shared={found.value} />
      ) : (
        <>
          <Body>
            A routine or a week, as a link or as a small file. You see what is in it before you take it.
          </Body>
          <Button look="strong" label="Choose a file" onPress={() => void pick()} />
        </>
      )}
    </Screen>
  );
}

function Looked({ shared }: { shared: Shared }) {
  const router = useRouter();
  const { settings, change } = useSettings();
  const planning = usePlanning();
  const begin = useBeginSession();
  const [taken, setTaken] = useState(false);
  const instrumentId = shared.kind === 'routine' ? shared.routine.instrumentId : shared.instrumentId;
  const instrument = instrumentIn(settings, instrumentId);
  if (!instrument)
    return (
      <Notice
        problem
        text={`It is for an instrument that is not known here (${instrumentId}). Ask for it to be sent for a shipped one, or bring the instrument in first. Nothing was changed.`}
      />
    );
  const today = planning?.date ?? '';
  const take = async () => {
    if (shared.kind === 'routine') await keepRoutine({ ...shared.routine, id: newId(new Date()) });
    else {
      await change({ instrumentId });
      await changePlan(
        instrumentId,
        ({ days }) => ({
          days: { ...days, ...Object.fromEntries(shared.days.map((day) => [day.date, day])) },
        }),
        today,
      );
    }
    setTaken(true);
  };
  const title = shared.kind === 'routine' ? shared.routine.name : shared.name;
  return (
    <>
      <View>
        <Heading>{title}</Heading>
        <Body>{`For the ${nameWithin(instrument)}. ${
          shared.kind === 'routine'
            ? plural(shared.routine.blocks.length, 'block')
            : `${plural(shared.days.length, 'day')}; they take the place of what is planned on them`
        }.`}</Body>
      </View>
      {taken ? (
        <Notice
          text={
            shared.kind === 'routine'
              ? 'Taken: it stands among your routines, on the page of the week.'
              : 'Taken: these days are planned now.'
          }
          action={{ label: 'To the week', onPress: () => router.replace('/week') }}
        />
      ) : (
        <Button look="strong" label="Take it" onPress={() => void take()} testID="take-it" />
      )}
      {shared.kind === 'routine' ? (
        <>
          <Blocks blocks={shared.routine.blocks} instrument={instrument} />
          <Button
            label="Play it once"
            onPress={() => void begin(instrumentId, title, shared.routine.blocks)}
          />
        </>
      ) : (
        shared.days.map((day) => (
          <View key={day.date}>
            <Day date={day.date} title={day} />
            <Blocks blocks={day.blocks} instrument={instrument} />
          </View>
        ))
      )}
      <Soft>Nothing of yours is sent back.</Soft>
    </>
  );
}

function Day({ date, title }: { date: string; title: Extract<Shared, { kind: 'week' }>['days'][number] }) {
  const nameOf = useNoteName();
  return <Heading>{`${dayText(new Date(`${date}T12:00:00`))}: ${sayDay(title, nameOf)}`}</Heading>;
}

function Blocks({ blocks, instrument }: { blocks: readonly Block[]; instrument: Instrument }) {
  return <PlanStrand blocks={blocks} instrument={instrument} today={0} />;
}
