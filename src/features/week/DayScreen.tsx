import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  addBlock,
  blockOf,
  civilDay,
  dateSchema,
  lockBlock,
  minutesText,
  moveBlock,
  moveToDay,
  nextPracticeDay,
  replanned,
  sayDay,
  shortenBlock,
  skipBlock,
  swapBlock,
  WEEKDAYS,
  weekdayOf,
  type DayPlan,
} from '@/core/plan';
import { families } from '@/core/music';
import { PlanStrand, useBeginSession, usePlanning, type Planning } from '@/features/planning';
import { BlockTools, sayTitle, Sortable } from './DayBlock';
import { keepRoutine, newId } from '@/store';
import { Button, dayText, Field, Heading, Screen, Soft, Stepper, useNoteName } from '@/ui';

/** One day, to be changed: moved, swapped, shortened, left out, kept in its place, named. */
export function DayScreen() {
  const { date } = useLocalSearchParams<{ date?: string }>();
  const planning = usePlanning();
  if (!planning)
    return (
      <Screen title="The day">
        <Soft>Reading what was heard …</Soft>
      </Screen>
    );
  const asked = dateSchema.safeParse(date ?? planning.date);
  return <Day key={date} planning={planning} date={asked.success ? asked.data : planning.date} />;
}

function Day({ planning, date }: { planning: Planning; date: string }) {
  const router = useRouter();
  const nameOf = useNoteName();
  const { planOn, planFor, instrument, keepDays, plan } = planning;
  const day = civilDay(date);
  const isToday = date === planning.date;
  const now = plan.days[date] ?? (isToday ? planning.today : planOn(day));
  const [before, setBefore] = useState<Readonly<Record<string, DayPlan | null>> | null>(null);
  const keepAll = (days: Readonly<Record<string, DayPlan>>) => {
    setBefore(Object.fromEntries(Object.keys(days).map((of) => [of, plan.days[of] ?? null])));
    void keepDays(days);
  };
  const keep = (next: DayPlan) => {
    if (next !== now) keepAll({ [date]: next });
  };
  const later = nextPracticeDay(plan.wishes, day);
  const moveLater = (id: string) => {
    const [less, more] = moveToDay(now, planOn(later), id);
    keepAll({ [less.date]: less, [more.date]: more });
  };
  const seconds = now.blocks.reduce((sum, block) => sum + (block.skipped ? 0 : block.seconds), 0);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const at = (id: unknown) => now.blocks.findIndex((block) => block.id === id);
    keep(moveBlock(now, String(active.id), at(over.id) - at(active.id)));
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <Screen
      caption={dayText(new Date(`${date}T12:00:00`))}
      title={sayDay(now, nameOf)}
      beside={<More planning={planning} plan={now} onKeep={keep} />}
      foot={
        <Button
          look="main"
          large
          grow={1}
          label="Done"
          onPress={() => (router.canGoBack() ? router.back() : router.replace('/'))}
        />
      }
    >
      <Soft>{`${minutesText(seconds)} of music in ${now.minutes} minutes. Drag a block by its handle, or choose it and move it with the arrow keys.`}</Soft>
      <View style={styles.ways}>
        {before ? (
          <Button
            look="quiet"
            label="Undo"
            onPress={() => {
              setBefore(null);
              void keepDays(before);
            }}
          />
        ) : null}
        {plan.days[date] ? (
          <Button
            look="quiet"
            label="As it was planned"
            onPress={() => void keepDays({ [date]: null })}
            testID="as-planned"
          />
        ) : null}
      </View>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={now.blocks.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          {now.blocks.map((block) => (
            <Sortable key={block.id} id={block.id} title={sayTitle(block)}>
              <PlanStrand
                blocks={[block]}
                instrument={instrument}
                today={day}
                tools={(of) => (
                  <BlockTools
                    block={of}
                    onSwap={() => keep(swapBlock(now, of.id, { ...planFor, day }))}
                    onShorten={() => keep(shortenBlock(now, of.id))}
                    onSkip={() => keep(skipBlock(now, of.id, !of.skipped))}
                    onLock={() => keep(lockBlock(now, of.id, !of.locked))}
                    onMove={(by) => keep(moveBlock(now, of.id, by))}
                    later={WEEKDAYS[weekdayOf(later)]!}
                    onLater={() => moveLater(of.id)}
                  />
                )}
              />
            </Sortable>
          ))}
        </SortableContext>
      </DndContext>
      <Stepper
        label="The whole day again, in"
        value={now.minutes}
        low={5}
        high={120}
        step={5}
        text={`${now.minutes} min`}
        onChange={(minutes) => keep(replanned(now, { ...planFor, day, minutes }))}
      />
      <Soft>Blocks that are kept in their place stay; the others are chosen anew.</Soft>
    </Screen>
  );
}

/** What else can be had on a day, and a name for it. */
function More({
  planning,
  plan,
  onKeep,
}: {
  planning: Planning;
  plan: DayPlan;
  onKeep: (plan: DayPlan) => void;
}) {
  const begin = useBeginSession();
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState('');
  const [kept, setKept] = useState<string | null>(null);
  const { instrument, planFor } = planning;
  const offered = families.filter((family) => family.unfit(instrument) === null);
  return (
    <View style={styles.more}>
      <Button
        look="quiet"
        label={adding ? 'Nothing more' : 'Add an exercise'}
        onPress={() => setAdding(!adding)}
      />
      {adding
        ? offered.map(({ id, title }) => (
            <Button
              key={id}
              look="quiet"
              label={title}
              onPress={() => {
                const block = blockOf(id, {}, instrument, planFor.level);
                if (block.ok) onKeep(addBlock(plan, block.value));
                setAdding(false);
              }}
            />
          ))
        : null}
      <Heading>Keep it as a routine</Heading>
      <Field
        label="Name of the routine"
        placeholder="A name, such as Before rehearsals"
        value={name}
        onChange={setName}
        most={60}
      />
      <View style={styles.ways}>
        <Button
          label="Keep"
          disabled={name.trim() === ''}
          onPress={() =>
            void keepRoutine({
              id: newId(new Date()),
              name: name.trim(),
              instrumentId: instrument.id,
              blocks: plan.blocks
                .filter(({ skipped }) => !skipped)
                .map((block) => ({ ...block, locked: false })),
            }).then(() => setKept(name.trim()))
          }
        />
        <Button
          label="Play this day now"
          onPress={() => void begin(instrument.id, kept ?? plan.date, plan.blocks)}
        />
      </View>
      {kept ? <Soft>{`“${kept}” is kept: you find it on the page of the week.`}</Soft> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  ways: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
  more: { gap: 8 },
});
