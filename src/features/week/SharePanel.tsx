import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { calendarFile } from '@/core/formats/calendar';
import { linkPart, sharedText, type Shared, SHARED_VERSION } from '@/core/formats/shared';
import { dateOf, isRest, minutesText, sayDay, sayWhy, titleOfBlock, weekdayOf } from '@/core/plan';
import type { Planning } from '@/features/planning';
import { Body, Button, download, Heading, Notice, Soft, useNoteName } from '@/ui';
import type { WeekDay } from './useWeek';

/** When practice begins, in a calendar; there it can be moved. */
const BEGINS = [18, 0] as const;

/** The week on paper, in a calendar, or to somebody else. */
export function SharePanel({ planning, days }: { planning: Planning; days: readonly WeekDay[] }) {
  const router = useRouter();
  const nameOf = useNoteName();
  const [told, setTold] = useState<string | null>(null);
  const [link, setLink] = useState<string | null>(null);
  const coming = days.flatMap(({ plan, day }) => (plan ? [{ plan, day }] : []));
  const [first] = coming;
  if (!first) return null;
  const shared = (): Shared => ({
    goldReed: SHARED_VERSION,
    kind: 'week',
    name: `A week from ${first.plan.date}`,
    instrumentId: planning.instrument.id,
    days: coming.map(({ plan }) => plan),
  });
  const calendar = () => {
    const file = calendarFile(
      coming.map(({ plan, day }) => ({
        date: plan.date,
        title: sayDay(plan, nameOf),
        minutes: plan.minutes,
        lines: plan.blocks
          .filter((block) => !isRest(block) && !block.skipped)
          .map(
            (block) =>
              `${titleOfBlock(block)}, ${minutesText(block.seconds)}. ${sayWhy(block.why, nameOf, weekdayOf(day))}`,
          ),
      })),
      BEGINS,
    );
    if (file.ok) download(`practice-${dateOf(first.day)}.ics`, file.value, 'text/calendar');
    else setTold(file.problem);
  };
  const copy = async () => {
    const address = `${window.location.origin}/open#${await linkPart(shared())}`;
    setLink(address);
    try {
      await navigator.clipboard.writeText(address);
      setTold('The link is copied. It holds the plan and nothing of what was heard.');
    } catch {
      setTold('Copy the link from here. It holds the plan and nothing of what was heard.');
    }
  };
  return (
    <View>
      <Heading>To a sheet, a calendar, a pupil</Heading>
      <Button look="quiet" label="Print the week" onPress={() => router.push('/week/print')} />
      <Button look="quiet" label="Calendar file" onPress={calendar} testID="calendar" />
      <Button look="quiet" label="Copy a link" onPress={() => void copy()} testID="copy-link" />
      <Button
        look="quiet"
        label="As a file"
        onPress={() =>
          download(`week-${dateOf(first.day)}.goldreed.json`, sharedText(shared()), 'application/json')
        }
      />
      <Button look="quiet" label="Open what was sent" onPress={() => router.push('/open')} />
      {told ? <Notice text={told} /> : null}
      {link ? (
        <Body lines={2} testID="link">
          {link}
        </Body>
      ) : (
        <Soft>For those who practise away from the phone, and for teachers.</Soft>
      )}
    </View>
  );
}
