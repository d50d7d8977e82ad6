import { Midi } from '@tonejs/midi';
import { parseMidi, writeMidi } from 'midi-file';
import { keysOf, secondsAt, type Score } from '@/core/music';
import { soundingOf, type Instrument } from '@/core/instruments';
import { keyName, movedKey } from '@/core/tuning';
import { VELOCITY } from './velocities';

/** Program numbers of the General MIDI sound set, from 0, by what an instrument's id begins with. */
const PROGRAMS: readonly (readonly [id: string, program: number])[] = [
  ['piccolo', 72],
  ['recorder', 74],
  ['whistle', 78],
  ['ney', 77],
  ['oboe', 68],
  ['cor-anglais', 69],
  ['bassoon', 70],
  ['contrabassoon', 70],
  ['clarinet', 71],
  ['bass-clarinet', 71],
  ['sax-soprano', 64],
  ['sax-alto', 65],
  ['sax-tenor', 66],
  ['sax-baritone', 67],
];
const FLUTE = 73;
const programOf = ({ id }: Instrument) => PROGRAMS.find(([start]) => id.startsWith(start))?.[1] ?? FLUTE;

/** Pitch bend of a quarter-tone, where the whole bend, 8192, is the usual two semitones. */
const QUARTER_TONE = 2048;

/** A score as a standard MIDI file, at sounding pitch, with the instrument's program; quarter-tones are bent to. */
export function toMidi(score: Score, instrument: Instrument): Uint8Array {
  const midi = new Midi();
  const { header } = midi;
  header.name = score.title;
  header.setTempo(score.tempo ?? 60);
  const metres =
    score.metres.length > 0 ? score.metres : [{ startBeat: 0, beats: score.beatsPerBar, unit: 4 }];
  for (const { startBeat, beats, unit } of metres)
    header.timeSignatures.push({ ticks: Math.round(startBeat * header.ppq), timeSignature: [beats, unit] });
  const keys = keysOf(score);
  score.notes.forEach(({ startBeat, key }, i) => {
    const fifths = i === 0 ? (key ?? score.fifths) : keys[i]!;
    if (i > 0 && (key === null || key === score.notes[i - 1]!.key)) return;
    header.keySignatures.push({
      ticks: Math.round(startBeat * header.ppq),
      key: keyName(movedKey(fifths, instrument.transposition)),
      scale: 'major',
    });
  });
  const track = midi.addTrack();
  track.name = instrument.name;
  track.instrument.number = programOf(instrument);
  let bent = false;
  for (const note of score.notes) {
    const start = secondsAt(score, note.startBeat);
    const sounding = soundingOf(instrument, note.written);
    const bends = !Number.isInteger(sounding);
    if (bends !== bent) track.addPitchBend({ time: start, value: bends ? QUARTER_TONE : 0 });
    bent = bends;
    track.addNote({
      midi: Math.floor(sounding),
      time: start,
      duration: (secondsAt(score, note.startBeat + note.beats) - start) * (note.breathAfter ? 0.9 : 1),
      velocity: VELOCITY[note.dynamic],
    });
  }
  return withKeys(midi.toArray());
}

/** The package writes key signatures fourteen fifths too high: they are put right in what it wrote. */
function withKeys(bytes: Uint8Array): Uint8Array {
  const file = parseMidi(bytes);
  for (const event of file.tracks.flat()) if (event.type === 'keySignature') event.key -= 14;
  return Uint8Array.from(writeMidi(file));
}
