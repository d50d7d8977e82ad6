import { Midi } from '@tonejs/midi';
import { markedFor, scoreOf, secondsAt, type Dynamic, type Score } from '@/core/music';
import { modeOf, soundingOf, writtenOf, type Instrument } from '@/core/instruments';
import { failure, success, type Outcome } from '@/core/base';

const VELOCITY: Readonly<Record<Dynamic, number>> = {
  pp: 0.25,
  p: 0.38,
  mp: 0.5,
  mf: 0.62,
  f: 0.76,
  ff: 0.9,
};
const ORDER: readonly Dynamic[] = ['pp', 'p', 'mp', 'mf', 'f', 'ff'];
/** Beats are read to the nearest of these parts. */
const GRID = 12;

/** A score as a standard MIDI file, at sounding pitch; quarter-tones go to the note below. */
export function toMidi(score: Score, instrument: Instrument): Uint8Array {
  const midi = new Midi();
  midi.header.name = score.title;
  midi.header.setTempo(score.tempo ?? 60);
  midi.header.timeSignatures.push({ ticks: 0, timeSignature: [score.beatsPerBar, 4] });
  const track = midi.addTrack();
  track.name = instrument.name;
  for (const note of score.notes) {
    const start = secondsAt(score, note.startBeat);
    track.addNote({
      midi: Math.floor(soundingOf(instrument, note.written)),
      time: start,
      duration: (secondsAt(score, note.startBeat + note.beats) - start) * (note.breathAfter ? 0.9 : 1),
      velocity: VELOCITY[note.dynamic],
    });
  }
  return midi.toArray();
}

const nearestDynamic = (velocity: number) =>
  ORDER.reduce((best, each) =>
    Math.abs(VELOCITY[each] - velocity) < Math.abs(VELOCITY[best] - velocity) ? each : best,
  );

/** Reads the first track with notes; where notes overlap, the highest is taken, as a melody would be. */
export function fromMidi(bytes: Uint8Array, instrument: Instrument, title = 'My music'): Outcome<Score> {
  let midi: Midi;
  try {
    midi = new Midi(bytes);
  } catch {
    return failure('the file is no standard MIDI file');
  }
  const track = midi.tracks.find((each) => each.notes.length > 0);
  if (!track) return failure('the MIDI file has no notes');
  const beat = midi.header.ppq;
  const grid = (ticks: number) => Math.round((ticks / beat) * GRID) / GRID;
  const rows = track.notes
    .map((note) => ({
      written: writtenOf(instrument, note.midi),
      startBeat: grid(note.ticks),
      endBeat: Math.max(grid(note.ticks + note.durationTicks), grid(note.ticks) + 1 / GRID),
      dynamic: nearestDynamic(note.velocity),
    }))
    .sort((a, b) => a.startBeat - b.startBeat || b.written - a.written);
  const melody = rows.filter((row, i) => i === 0 || row.startBeat > rows[i - 1]!.startBeat);
  const notes = melody.map((row, i) => {
    const next = melody[i + 1];
    const end = next ? Math.min(row.endBeat, next.startBeat) : row.endBeat;
    return {
      written: row.written,
      startBeat: row.startBeat,
      beats: end - row.startBeat,
      attack: 'tongued' as const,
      dynamic: row.dynamic,
      mode: modeOf(instrument, row.written),
    };
  });
  const bpm = midi.header.tempos[0]?.bpm;
  try {
    const score = scoreOf({
      family: 'own-music',
      title: midi.header.name || title,
      instrumentId: instrument.id,
      tempo: bpm === undefined ? null : Math.min(300, Math.max(20, Math.round(bpm))),
      beatsPerBar: Math.min(12, midi.header.timeSignatures[0]?.timeSignature[0] ?? 4),
      countInBeats: 4,
      vibrato: 'free',
      notes,
    });
    return success({ ...score, notes: markedFor(score.notes, instrument) });
  } catch {
    return failure('the MIDI file holds notes that no wind instrument could have');
  }
}
