import { useState } from 'react';
import { View } from 'react-native';
import {
  civilDay,
  dayOfProgramme,
  findProgramme,
  lengthOf,
  outcomeOf,
  programmesFor,
  type ProgrammeOutcome,
} from '@/core/plan';
import { fixed } from '@/core/verdict';
import type { Planning } from '@/features/planning';
import { usePlayed } from '@/store';
import { Body, Button, Heading, Soft } from '@/ui';

/** Some weeks for one thing, with an end, and what they changed. */
export function ProgrammesPanel({ planning }: { planning: Planning }) {
  const { plan, calendar, instrument, change, date } = planning;
  const { wishes } = plan;
  const { data: played } = usePlayed(instrument.id, false);
  const [choosing, setChoosing] = useState(false);
  const running = plan.programme && { id: plan.programme.id, startedOn: civilDay(plan.programme.startedOn) };
  const programme = running && findProgramme(running.id);
  const at = running && dayOfProgramme(running, wishes, calendar.today);
  const total = running && lengthOf(running, wishes);
  const outcome = running && played ? outcomeOf(running, played, wishes, calendar) : null;
  return (
    <View testID="programmes">
      <Heading>Programmes</Heading>
      {programme && at !== null ? (
        <>
          <Body>{`${programme.title}, day ${at} of ${total}`}</Body>
          <Soft>{`${programme.about} Its first and last four days are measured in the same way.`}</Soft>
          <Button look="quiet" label="End it now" onPress={() => void change(() => ({ programme: null }))} />
        </>
      ) : null}
      {programme && total === null ? (
        <>
          <Body>{`${programme.title} has no day to end on.`}</Body>
          <Soft>Set the day of the event in your wishes, or put the programme away.</Soft>
          <Button look="quiet" label="Put it away" onPress={() => void change(() => ({ programme: null }))} />
        </>
      ) : null}
      {programme && at === null && outcome ? (
        <>
          <Body>{`${programme.title} is over. ${sayOutcome(outcome)}`}</Body>
          <Button look="quiet" label="Put it away" onPress={() => void change(() => ({ programme: null }))} />
        </>
      ) : null}
      {!programme && !choosing ? (
        <>
          <Soft>
            Some weeks for one thing: a few minutes a day, an end, and a measurement before and after.
          </Soft>
          <Button
            look="quiet"
            label="Begin a programme"
            onPress={() => setChoosing(true)}
            testID="programme"
          />
        </>
      ) : null}
      {!programme && choosing
        ? programmesFor(instrument, wishes, calendar.today).map(({ id, title, about }) => (
            <View key={id}>
              <Button
                look="quiet"
                label={title}
                onPress={() =>
                  void change(() => ({ programme: { id, startedOn: date } })).then(() => setChoosing(false))
                }
              />
              <Soft>{about}</Soft>
            </View>
          ))
        : null}
    </View>
  );
}

/** What it changed, also when that is nothing. */
function sayOutcome({ before, after, change, verdict, unit, decimals, label }: ProgrammeOutcome): string {
  if (before === null || after === null || !change)
    return 'Too little was measured at its two ends to say what it changed.';
  const say = (value: number) => fixed(value, decimals);
  const told = `${label}: ${say(before)} ${unit} before, ${say(after)} ${unit} after; a change of ${say(change.value)}, between ${say(change.low)} and ${say(change.high)} nineteen times of twenty.`;
  if (verdict === 'no-change') return `${told} That is no change that can be told from chance.`;
  return `${told} ${verdict === 'better' ? 'Better.' : 'Not for the better.'}`;
}
