import { asRead, tempoText } from '@/core/music';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useExercise } from './useExercise';
import { useSettings } from '@/store';
import { Notation, Notice, PAPER_WIDTH, paperScale, Sheet } from '@/ui';

/** A clean sheet of an exercise, with its text, to hand out. */
export function SheetScreen() {
  const { exercise: id } = useLocalSearchParams<{ exercise: string }>();
  const exercise = useExercise(id ?? '');
  const { settings } = useSettings();
  const router = useRouter();
  const title = exercise?.family.title;
  useEffect(() => {
    if (title) document.title = title;
  }, [title]);
  if (!exercise?.score.ok)
    return (
      <Notice
        problem
        text={exercise && !exercise.score.ok ? exercise.score.problem : 'There is nothing to print.'}
        action={{ label: 'To the library', onPress: () => router.replace('/practise') }}
      />
    );
  const { family, instrument, score } = exercise;
  const { value } = score;
  const caution = family.caution ? `Take care: ${family.caution}` : null;
  return (
    <Sheet
      title={family.title}
      onBack={() => (router.canGoBack() ? router.back() : router.replace('/practise'))}
    >
      <p>{`${instrument.name} · ${value.tempo === null ? 'free time' : tempoText(value)}`}</p>
      <Notation
        {...asRead(value, instrument, { ...settings.readAs, pitch: 'written' })}
        scale={paperScale(value.notes.length)}
        paper={PAPER_WIDTH}
      />
      <p>{family.what}</p>
      <p>{family.how}</p>
      <p>{`Listen for: ${family.listen}`}</p>
      <p>{`Enough: ${family.enough}`}</p>
      {value.cue ? <p>{`Attend to: ${value.cue}.`}</p> : null}
      {caution ? <p>{caution}</p> : null}
    </Sheet>
  );
}
