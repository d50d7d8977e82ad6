import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { Instrument } from '@/core/instruments';
import { unpacked } from '@/core/ledger';
import type { Score } from '@/core/music';
import { drillsOf } from '@/core/plan';
import { limitsOf, plural } from '@/core/verdict';
import { keepRoutine, useCells, useSettings } from '@/store';
import { Button, Notice } from '@/ui';

interface DrillsOfItProps {
  readonly pieceId: string;
  readonly score: Score;
  readonly instrument: Instrument;
}

const LONGEST_NAME = 60;

/** One tap makes a routine of a piece’s crossings, what failed most on the map first. */
export function DrillsOfIt({ pieceId, score, instrument }: DrillsOfItProps) {
  const router = useRouter();
  const { settings } = useSettings();
  const { level, ownLimits } = settings;
  const { data: cells } = useCells(instrument.id);
  const [kept, setKept] = useState<number | null>(null);
  const make = async () => {
    const crossings = Object.values(cells ?? {}).flatMap((each) => unpacked(each).crossings);
    const blocks = drillsOf(score, instrument, crossings, limitsOf(level, ownLimits), level);
    if (blocks.length > 0)
      await keepRoutine({
        id: `piece-${pieceId}`,
        name: `Drills: ${score.title}`.slice(0, LONGEST_NAME),
        instrumentId: instrument.id,
        blocks,
      });
    setKept(blocks.length);
  };
  return (
    <View>
      <Button label="Make drills of it" disabled={!cells} onPress={() => void make()} testID="make-drills" />
      {kept === null ? null : kept === 0 ? (
        <Notice text="Nothing in it crosses a break: there is no drill to make." />
      ) : (
        <Notice
          testID="drills-made"
          text={`${plural(kept, 'drill')} kept as a routine, what failed most on your map first.`}
          action={{ label: 'To your routines', onPress: () => router.push('/week') }}
        />
      )}
    </View>
  );
}
