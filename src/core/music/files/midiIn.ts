import { Midi, type Track } from '@tonejs/midi';
import { countInOf, markedFor, scoreOf, TICKS, ticksOf, type Metre, type MusicRead } from '@/core/music';
import { modeOf, writtenOf, type Instrument } from '@/core/instruments';
import { failure, success, type Outcome } from '@/core/base';
import { fifthsOfKey, movedKey } from '@/core/tuning';
import { inOrder, leftOut, lineOf } from './lines';
import { nearestDynamic } from './velocities';

/** Parts of a beat that a note is read to begin on, the plainest that is near enough first. */
const GRIDS = [1, 2, 4, 3, 6, 8] as const;
/** So near, in beats, is on the grid. */
const ON_GRID = 0.035;
const UNITS: readonly number[] = [1, 2, 4, 8, 16, 32];

/** The nearest place that can be written: plain where that is near, else as finely as values go. */
function placed(beats: number): number {
  for (const grid of GRIDS) {
    const near = Math.round(beats * grid) / grid;
    if (Math.abs(near - beats) <= ON_GRID / grid ** 0.5) return near;
  }
  return ticksOf(beats) / TICKS;
}

const isDrums = ({ channel, instrument }: Track) => channel === 9 || instrument.percussion;

/**
 * Reads a standard MIDI file for an instrument: notes are taken at sounding pitch. Where notes of a track overlap, the highest is
 * taken, as a melody would be. @param line which track; else the one that fits best, never drums.
 */
export function fromMidi(
  bytes: Uint8Array,
  instrument: Instrument,
  title = 'My music',
  line?: string,
): Outcome<MusicRead> {
  let midi: Midi;
  try {
    midi = new Midi(bytes);
  } catch {
    return failure('the file is no standard MIDI file');
  }
  const sounding = midi.tracks.flatMap((track, i) =>
    track.notes.length > 0 && !isDrums(track) ? [{ track, id: String(i) }] : [],
  );
  const melodies = new Map(sounding.map(({ track, id }) => [id, melodyOf(track)]));
  const lines = inOrder(
    sounding.map(({ track, id }) =>
      lineOf(
        id,
        track.name.trim() || track.instrument.name,
        melodies.get(id)!.map(({ midi: note }) => writtenOf(instrument, note)),
        instrument,
      ),
    ),
    instrument,
  );
  const chosen = lines.find(({ id }) => id === line) ?? lines[0];
  if (!chosen)
    return failure(
      midi.tracks.some(isDrums) ? 'the MIDI file holds only drums' : 'the MIDI file has no notes',
    );
  const { track } = sounding.find(({ id }) => id === chosen.id)!;
  const melody = melodies.get(chosen.id)!;
  const { ppq, tempos } = midi.header;
  const metres = metresOf(midi);
  const timed = { metres, beatsPerBar: crotchetsOf(midi) };
  const bpm = tempos[0]?.bpm;
  try {
    const score = scoreOf({
      family: 'own-music',
      title: midi.header.name || title,
      instrumentId: instrument.id,
      tempo: bpm === undefined ? null : Math.min(300, Math.max(20, Math.round(bpm))),
      ...timed,
      countInBeats: countInOf(timed),
      vibrato: 'free',
      fifths: fifthsFor(midi, instrument),
      notes: notesOf(melody, ppq, instrument),
    });
    const changes = tempos.filter((each, i) => i > 0 && Math.abs(each.bpm - tempos[i - 1]!.bpm) > 1).length;
    return success({
      score: { ...score, notes: markedFor(score.notes, instrument) },
      lines,
      line: chosen.id,
      remark: leftOut([
        [track.notes.length - melody.length, 'note under another', 'notes under others'],
        [changes, 'change of tempo', 'changes of tempo'],
      ]),
    });
  } catch {
    return failure('the MIDI file holds notes that no wind instrument could have');
  }
}

/** The highest of what begins at once. */
function melodyOf({ notes }: Track): Track['notes'] {
  const rows = [...notes].sort((a, b) => a.ticks - b.ticks || b.midi - a.midi);
  return rows.filter((row, i) => i === 0 || row.ticks > rows[i - 1]!.ticks);
}

function notesOf(melody: Track['notes'], ppq: number, instrument: Instrument) {
  const rows = melody.map(({ ticks, durationTicks, midi, velocity }) => {
    const startBeat = placed(ticks / ppq);
    return {
      midi,
      velocity,
      startBeat,
      endBeat: Math.max(placed((ticks + durationTicks) / ppq), startBeat + 1 / 8),
    };
  });
  const apart = rows.filter((row, i) => i === 0 || row.startBeat > rows[i - 1]!.startBeat);
  return apart.map((row, i) => {
    const next = apart[i + 1];
    const end = next ? Math.min(row.endBeat, next.startBeat) : row.endBeat;
    const written = writtenOf(instrument, row.midi);
    return {
      written,
      startBeat: row.startBeat,
      beats: end - row.startBeat,
      attack: 'tongued' as const,
      dynamic: nearestDynamic(row.velocity),
      mode: modeOf(instrument, written),
    };
  });
}

function metresOf({ header }: Midi): Metre[] {
  const metres = header.timeSignatures.flatMap(({ ticks, timeSignature }): Metre[] => {
    const [beats, unit] = timeSignature as [number, number];
    return Number.isInteger(beats) && beats >= 1 && beats <= 32 && UNITS.includes(unit)
      ? [{ startBeat: placed(ticks / header.ppq), beats, unit: unit as Metre['unit'], length: null }]
      : [];
  });
  const [first] = metres;
  const usual = metres.length === 0 || (metres.length === 1 && first!.unit === 4 && first!.beats <= 12);
  if (usual) return [];
  return first!.startBeat > 0 ? [{ startBeat: 0, beats: 4, unit: 4, length: null }, ...metres] : metres;
}

function crotchetsOf({ header }: Midi): number {
  const [beats, unit] = header.timeSignatures[0]?.timeSignature ?? [4, 4];
  return Math.max(1, Math.min(12, Math.round((4 * (beats ?? 4)) / (unit ?? 4)) || 4));
}

/** Sharps of the written key: the file's, moved by as much as the instrument transposes. */
const fifthsFor = ({ header }: Midi, { transposition }: Instrument): number =>
  movedKey(fifthsOfKey(header.keySignatures[0]?.key ?? 'C'), -transposition);
