import type { Midi } from '@/core/base';
import type { Entry } from './entry';

/** What of the log is looked for. Null or empty: whatever it is. */
export interface LogQuery {
  readonly text: string;
  readonly instrumentId: string | null;
  readonly family: string | null;
  /** Kind of fault that was found. */
  readonly fault: string | null;
  readonly reed: string | null;
  readonly cue: string | null;
  /** Sounding pitch that was heard. */
  readonly heard: Midi | null;
  /** A seam of which both notes were heard, sounding. */
  readonly seam: readonly [below: Midi, above: Midi] | null;
  /** With its sound kept. */
  readonly withSound: boolean;
  /** With a remark. */
  readonly remarked: boolean;
}

export const ANYTHING: LogQuery = {
  text: '',
  instrumentId: null,
  family: null,
  fault: null,
  reed: null,
  cue: null,
  heard: null,
  seam: null,
  withSound: false,
  remarked: false,
};

/** Whether a query leaves anything out. */
export const asksAnything = (query: LogQuery): boolean =>
  Object.values(query).some(
    (part: LogQuery[keyof LogQuery]) => part !== null && part !== '' && part !== false,
  );

/** Whether a row is looked for: all that was asked, and every word somewhere in what is written of it. */
export function isWanted(entry: Entry, query: LogQuery): boolean {
  const { text, instrumentId, family, fault, reed, cue, heard, seam, withSound, remarked } = query;
  if (instrumentId !== null && entry.instrumentId !== instrumentId) return false;
  if (family !== null && entry.family !== family) return false;
  if (fault !== null && !(fault in entry.faults)) return false;
  if (reed !== null && entry.reed !== reed) return false;
  if (cue !== null && entry.cue !== cue) return false;
  if (heard !== null && !entry.heard.includes(heard)) return false;
  if (seam !== null && !seam.every((note) => entry.heard.includes(note))) return false;
  if (withSound && entry.audioBytes === 0) return false;
  if (remarked && entry.remark === '') return false;
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return true;
  const { title, headline, instrumentName, remark, room } = entry;
  const all = [title, headline, instrumentName, remark, room, entry.reed, entry.cue ?? '']
    .join(' ')
    .toLowerCase();
  return words.every((word) => all.includes(word));
}

/** What can be asked of these rows: whatever is in them, most often first. */
export function offeredIn(entries: readonly Entry[]): {
  readonly instruments: readonly { id: string; name: string }[];
  readonly families: readonly { id: string; name: string }[];
  readonly faults: readonly string[];
  readonly reeds: readonly string[];
  readonly cues: readonly string[];
  /** Sounding, low to high. */
  readonly notes: readonly Midi[];
} {
  const counted = (of: (entry: Entry) => readonly string[]) => {
    const counts = new Map<string, number>();
    for (const entry of entries) for (const each of of(entry)) counts.set(each, (counts.get(each) ?? 0) + 1);
    return [...counts].sort(([, a], [, b]) => b - a).map(([each]) => each);
  };
  const named = (ids: readonly string[], name: (entry: Entry) => string, id: (entry: Entry) => string) =>
    ids.map((each) => ({ id: each, name: name(entries.find((entry) => id(entry) === each)!) }));
  return {
    instruments: named(
      counted(({ instrumentId }) => [instrumentId]),
      ({ instrumentName }) => instrumentName,
      ({ instrumentId }) => instrumentId,
    ),
    families: named(
      counted(({ family }) => [family]),
      ({ title }) => title,
      ({ family }) => family,
    ),
    faults: counted(({ faults }) => Object.keys(faults)),
    reeds: counted(({ reed }) => (reed ? [reed] : [])),
    cues: counted(({ cue }) => (cue ? [cue] : [])),
    notes: [...new Set(entries.flatMap(({ heard }) => heard))].sort((a, b) => a - b),
  };
}
