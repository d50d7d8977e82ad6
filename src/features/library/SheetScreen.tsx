import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useExercise } from './useExercise';
import { fonts, Notation, Notice } from '@/ui';

/** Ink on white, and nothing but the sheet when it is printed; the app's own frame scrolls inside itself, a sheet must not. */
const SHEET = `
  .sheet { background: #fff; color: #000; min-height: 100vh; padding: 28px; box-sizing: border-box; font-family: ${fonts.text}; }
  .sheet h1 { font-family: ${fonts.display}; font-weight: 400; font-size: 28px; margin: 0 0 2px; }
  .sheet p { font-size: 15px; line-height: 1.4; margin: 6px 0; }
  .sheet .keys { display: flex; gap: 12px; margin-bottom: 18px; }
  .sheet button { font: 17px ${fonts.bold}; min-height: 48px; padding: 0 20px; border: 1px solid #444; border-radius: 14px; background: #fff; color: #000; }
  html, body, #root { height: auto; overflow: visible; }
  @media print { .sheet { padding: 0; } .sheet .keys { display: none; } @page { margin: 15mm; } }
`;

/** A clean sheet of an exercise, with its text, to hand out. */
export function SheetScreen() {
  const { exercise: id } = useLocalSearchParams<{ exercise: string }>();
  const exercise = useExercise(id ?? '');
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
    <div className="sheet" role="main">
      <style>{SHEET}</style>
      <div className="keys">
        <button onClick={() => window.print()}>Print</button>
        <button onClick={() => (router.canGoBack() ? router.back() : router.replace('/practise'))}>
          Back
        </button>
      </div>
      <h1>{family.title}</h1>
      <p>{`${instrument.name} · ${value.tempo === null ? 'free time' : `♩ ${value.tempo}`}`}</p>
      <Notation score={value} instrument={instrument} scale={value.notes.length > 80 ? 0.7 : 0.95} forPrint />
      <p>{family.what}</p>
      <p>{family.how}</p>
      {value.cue ? <p>{`Attend to: ${value.cue}.`}</p> : null}
      {caution ? <p>{caution}</p> : null}
    </div>
  );
}
