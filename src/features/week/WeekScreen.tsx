import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { nameWithin } from '@/core/instruments';
import { linkPart, SHARED_VERSION } from '@/core/formats/shared';
import { seamTitle } from '@/core/ledger';
import { civilDay, mondayOf, weakestOf, WEEKDAYS, type BreakStanding } from '@/core/plan';
import { plural } from '@/core/verdict';
import { useBeginSession, usePlanning, type Planning } from '@/features/planning';
import { removeRoutine, useRoutines } from '@/store';
import {
  Body,
  Button,
  Heading,
  Screen,
  Soft,
  useNoteName,
  usePalette,
  useShape,
  weekText,
  wholeDay,
} from '@/ui';
import { ProgrammesPanel } from './ProgrammesPanel';
import { SharePanel } from './SharePanel';
import { useWeek } from './useWeek';
import { WeekStrands } from './WeekStrands';

/** Seven days: what was played, what is planned, what the plan goes by. */
export function WeekScreen() {
  const planning = usePlanning();
  const [weeksOn, setWeeksOn] = useState(0);
  const days = useWeek(planning, weeksOn);
  const nameOf = useNoteName();
  const palette = usePalette();
  const { wide } = useShape();
  if (!planning || days.length === 0)
    return (
      <Screen caption="Reading …" title="The week">
        <Soft>Reading what was heard …</Soft>
      </Screen>
    );
  const first = mondayOf(planning.calendar.today) + 7 * weeksOn;
  const about = planning.today.blocks.find(({ why }) => 'from' in why)?.why;
  return (
    <Screen
      caption={`${weekText(first)} · ${nameWithin(planning.instrument)}`}
      title={about && 'from' in about ? `A week for ${seamTitle(about.from, about.to, nameOf)}` : 'The week'}
    >
      <View style={wide ? styles.panes : styles.single}>
        <View style={wide ? styles.main : styles.single}>
          <WeekStrands days={days} />
          <View style={styles.ways}>
            <Button
              look="quiet"
              label={weeksOn === 0 ? 'Next week' : 'This week'}
              onPress={() => setWeeksOn(1 - weeksOn)}
            />
          </View>
          <Soft>
            What has been missed is planned around, not made up for: the next day takes what asks most by
            then.
          </Soft>
          <Stands breaks={planning.planFor.standing.breaks} />
        </View>
        <View style={wide ? [styles.second, { borderLeftColor: palette.hairline }] : styles.single}>
          <Beside planning={planning} days={days} />
        </View>
      </View>
    </Screen>
  );
}

function Stands({ breaks }: { breaks: readonly BreakStanding[] }) {
  const nameOf = useNoteName();
  const heard = breaks.filter(({ of }) => of > 0);
  if (heard.length === 0) return null;
  return (
    <View>
      <Heading>Where it stands</Heading>
      {heard.map((place) => {
        const weakest = weakestOf(place);
        return (
          <Body key={place.above}>
            {weakest
              ? `${seamTitle(weakest.from, weakest.to, nameOf)}: ${weakest.lately.clean} of ${weakest.lately.of} clean within three weeks, ${weakest.last.clean} of ${weakest.last.of} the last time.`
              : `${nameOf(place.below)}–${nameOf(place.above)}: too few slurs to say.`}
          </Body>
        );
      })}
    </View>
  );
}

function Beside({ planning, days }: { planning: Planning; days: ReturnType<typeof useWeek> }) {
  const router = useRouter();
  const { wishes } = planning.plan;
  const off = WEEKDAYS.filter((_, i) => !wishes.days[i]);
  return (
    <>
      <View>
        <Heading>What the plan goes by</Heading>
        <Body>{`${wishes.minutes} minutes, ${plural(7 - off.length, 'day')} a week`}</Body>
        {off.length > 0 && off.length < 7 ? <Body>{`${off.join(', ')} free`}</Body> : null}
        {wishes.purposes.length > 0 ? <Body>{`For ${wishes.purposes.join(', ')}`}</Body> : null}
        {wishes.event ? (
          <Body>{`${wishes.event.name} on ${wholeDay(civilDay(wishes.event.date))}`}</Body>
        ) : null}
        <Button
          look="quiet"
          label="Change these"
          onPress={() => router.push('/week/wishes')}
          testID="to-wishes"
        />
      </View>
      <SharePanel planning={planning} days={days} />
      <ProgrammesPanel planning={planning} />
      <Routines />
    </>
  );
}

/** Rows of blocks that the player has named. */
function Routines() {
  const routines = useRoutines();
  const begin = useBeginSession();
  const [gone, setGone] = useState<string | null>(null);
  const [sent, setSent] = useState<string | null>(null);
  return (
    <View>
      <Heading>Your own routines</Heading>
      {routines.length === 0 ? (
        <Soft>Change a day as you like it, give it a name, and it is kept here to be played again.</Soft>
      ) : null}
      {routines.map((routine) => (
        <View key={routine.id} style={styles.routine}>
          <Body>{`${routine.name}, ${plural(routine.blocks.length, 'block')}`}</Body>
          <View style={styles.ways}>
            <Button
              look="quiet"
              label="Play it"
              spoken={`Play ${routine.name}`}
              onPress={() => void begin(routine.instrumentId, routine.name, routine.blocks)}
            />
            <Button
              look="quiet"
              label={sent === routine.id ? 'Link copied' : 'Copy a link'}
              spoken={`${sent === routine.id ? 'Link copied' : 'Copy a link'}: ${routine.name}`}
              onPress={() => {
                void linkPart({ goldReed: SHARED_VERSION, kind: 'routine', routine })
                  .then((part) => navigator.clipboard.writeText(`${window.location.origin}/open#${part}`))
                  .then(() => setSent(routine.id));
              }}
            />
            <Button
              look="quiet"
              label={gone === routine.id ? 'Really remove it' : 'Remove'}
              spoken={`${gone === routine.id ? 'Really remove' : 'Remove'} ${routine.name}`}
              onPress={() => (gone === routine.id ? void removeRoutine(routine.id) : setGone(routine.id))}
            />
          </View>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  ways: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 26 },
  routine: { paddingTop: 6 },
  panes: { flexDirection: 'row', gap: 24 },
  main: { flex: 1, minWidth: 0, gap: 20 },
  single: { gap: 20 },
  second: { width: 250, gap: 20, borderLeftWidth: 1, paddingLeft: 20 },
});
