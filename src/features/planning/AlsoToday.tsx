import { View } from 'react-native';
import { nameWithin } from '@/core/instruments';
import { isPracticeDay, takesOf, type CivilDay } from '@/core/plan';
import { instrumentIn, usePastSessions, usePlannedInstruments, useSettings } from '@/store';
import { Button, Soft } from '@/ui';

interface AlsoTodayProps {
  readonly day: CivilDay;
  readonly date: string;
  /** Once one of them is chosen. */
  readonly onChosen?: () => void;
}

/** Other instruments that today is a day of practice for, by a week of their own; one tap takes one up. */
export function AlsoToday({ day, date, onChosen }: AlsoTodayProps) {
  const { settings, change } = useSettings();
  const planned = usePlannedInstruments();
  const past = usePastSessions();
  const others = planned.flatMap(({ instrumentId, wishes }) => {
    const instrument = instrumentIn(settings, instrumentId);
    const isDone = past.some(
      (session) =>
        session.date === date && session.instrumentId === instrumentId && takesOf(session).length > 0,
    );
    if (!instrument || isDone || instrumentId === settings.instrumentId || !isPracticeDay(wishes, day))
      return [];
    return [{ instrument, minutes: wishes.minutes }];
  });
  if (others.length === 0) return null;
  return (
    <View testID="also-today">
      <Soft>Also planned for today:</Soft>
      {others.map(({ instrument, minutes }) => (
        <Button
          key={instrument.id}
          look="quiet"
          label={`${nameWithin(instrument)}, ${minutes} minutes`}
          onPress={() => void change({ instrumentId: instrument.id }).then(onChosen)}
        />
      ))}
    </View>
  );
}
