import { unparse } from 'papaparse';
import type { Entry } from '@/core/ledger';
import type { Take } from '@/core/take';
import { FIGURES, FIGURE_IDS } from '@/core/verdict';

/** Cells that a spreadsheet would take for a formula are made harmless; numbers stay numbers. */
const csvOf = (
  rows: readonly Readonly<Record<string, string | number | null>>[],
  columns: readonly string[],
) => unparse([...rows], { columns: [...columns], escapeFormulae: true, newline: '\r\n' });

const rounded = (value: number | null, decimals = 2) =>
  value === null ? null : Math.round(value * 10 ** decimals) / 10 ** decimals;

/** One row a take: what it was, and the figures of the whole of it, each with its unit in the heading. */
export function takesCsv(entries: readonly Entry[]): string {
  const shown = FIGURE_IDS.filter((id) => entries.some(({ figures }) => figures[id]));
  const heading = (id: (typeof FIGURE_IDS)[number]) => `${FIGURES[id].label} (${FIGURES[id].unit})`;
  const columns = [
    'id',
    'played at',
    'exercise',
    'title',
    'instrument',
    'seconds',
    'headline',
    'faults',
    'remark',
    'reed',
    'room',
    'slide (mm)',
    'temperature (°C)',
    'source',
    ...shown.map(heading),
  ];
  return csvOf(
    entries.map((entry) => ({
      id: entry.id,
      'played at': entry.createdAt,
      exercise: entry.family,
      title: entry.title,
      instrument: entry.instrumentName,
      seconds: rounded(entry.durationSeconds, 1),
      headline: entry.headline,
      faults: Object.entries(entry.faults)
        .map(([kind, count]) => `${kind} ${count}`)
        .join('; '),
      remark: entry.remark,
      reed: entry.reed,
      room: entry.room,
      'slide (mm)': entry.slideMm,
      'temperature (°C)': entry.temperatureC,
      source: entry.source,
      ...Object.fromEntries(shown.map((id) => [heading(id), entry.figures[id]?.[0] ?? null])),
    })),
    columns,
  );
}

const NOTE_COLUMNS = [
  'take',
  'note',
  'start (s)',
  'end (s)',
  'sounding (MIDI)',
  'written',
  'register',
  'centre (cents)',
  'wobble (cents)',
  'drift (cents/s)',
  'level (dBFS)',
  'vibrato (Hz)',
  'vibrato (cents)',
  'pure (s)',
  'airiness (dB)',
  'brightness',
  'richness',
] as const;

/** One row a heard note. @param header whether the headings come first: an export goes on take by take. */
export function notesCsv({ id, notes }: Pick<Take, 'id' | 'notes'>, header: boolean): string {
  const rows = notes.map((note, i) => ({
    take: id,
    note: i + 1,
    'start (s)': rounded(note.startSeconds, 3),
    'end (s)': rounded(note.endSeconds, 3),
    'sounding (MIDI)': note.soundingMidi,
    written: note.writtenName,
    register: note.register,
    'centre (cents)': rounded(note.centreCents),
    'wobble (cents)': rounded(note.wobbleCents),
    'drift (cents/s)': rounded(note.driftCentsPerSecond),
    'level (dBFS)': rounded(note.levelDb),
    'vibrato (Hz)': rounded(note.vibrato?.rateHz ?? null),
    'vibrato (cents)': rounded(note.vibrato?.extentCents ?? null),
    'pure (s)': rounded(note.puritySeconds),
    'airiness (dB)': rounded(note.airinessDb),
    brightness: rounded(note.brightness),
    richness: rounded(note.richness),
  }));
  const text = csvOf(rows, NOTE_COLUMNS);
  const body = text.slice(text.indexOf('\r\n') + 2);
  const whole = header ? text : rows.length > 0 ? body : '';
  return whole === '' ? '' : `${whole}\r\n`;
}
