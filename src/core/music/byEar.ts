import type { ScoreNote } from './score';

/** A phrase of music that goes round the keys: its first note, where it begins, and what it is called. */
export interface KeyPhrase {
  readonly from: number;
  readonly startBeat: number;
  readonly name: string;
}

interface Music {
  readonly notes: readonly Pick<ScoreNote, 'key' | 'label' | 'startBeat'>[];
}

/** The phrases of music that goes round the keys, each as long as its key: by the key's name, or its signature where none is written. */
export function phrasesByKey({ notes }: Music): KeyPhrase[] {
  return notes.flatMap(({ key, label, startBeat }, from): KeyPhrase[] =>
    from === 0 || notes[from - 1]!.key !== key
      ? [{ from, startBeat, name: label ?? signatureInWords(key ?? 0) }]
      : [],
  );
}

function signatureInWords(fifths: number): string {
  if (fifths === 0) return 'no sharps or flats';
  const count = Math.abs(fifths);
  return `${count} ${fifths > 0 ? 'sharp' : 'flat'}${count === 1 ? '' : 's'}`;
}
