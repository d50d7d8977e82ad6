import type { Midi } from '@/core/base';
import { seamsOf, soundingOf, writtenOf } from '@/core/instruments';
import type { LogQuery } from '@/core/ledger';
import { instrumentIn, useSettings } from '@/store';
import { Choice, useNoteName } from '@/ui';

interface NoteFiltersProps {
  readonly instrumentId: string;
  readonly query: LogQuery;
  /** Sounding pitches that there are. */
  readonly notes: readonly Midi[];
  readonly onChange: (part: Partial<LogQuery>) => void;
}

const ANY = '';

/** Takes with a note of an instrument, or with both notes of one of its seams. */
export function NoteFilters({ instrumentId, query, notes, onChange }: NoteFiltersProps) {
  const nameOf = useNoteName();
  const { settings } = useSettings();
  const instrument = instrumentIn(settings, instrumentId);
  if (!instrument) return null;
  const seams = seamsOf(instrument)
    .map(({ below, above }) => ({
      name: `${nameOf(below)}–${nameOf(above)}`,
      sounding: [soundingOf(instrument, below), soundingOf(instrument, above)] as const,
    }))
    .filter(({ sounding }) => sounding.every((note) => notes.includes(note)));
  return (
    <>
      <Choice
        label="With the note"
        value={query.heard === null ? ANY : String(query.heard)}
        options={[
          { value: ANY, label: 'any' },
          ...notes.map((note) => ({ value: String(note), label: nameOf(writtenOf(instrument, note)) })),
        ]}
        onChange={(value) => onChange({ heard: value === ANY ? null : Number(value) })}
      />
      {seams.length === 0 ? null : (
        <Choice
          label="With both notes of a seam"
          value={query.seam === null ? ANY : query.seam.join()}
          options={[
            { value: ANY, label: 'any' },
            ...seams.map(({ name, sounding }) => ({ value: sounding.join(), label: name })),
          ]}
          onChange={(value) =>
            onChange({ seam: seams.find(({ sounding }) => sounding.join() === value)?.sounding ?? null })
          }
        />
      )}
    </>
  );
}
