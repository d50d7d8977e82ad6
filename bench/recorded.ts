import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decodeWavBlocks, readWavLayout } from '@/core/formats';
import {
  findInstrument,
  soundingOf,
  listeningRange,
  writtenRange,
  type Instrument,
} from '@/core/instruments';
import { heardIn, rooms, type RoomName } from '@/core/lab';
import { hearNotes } from '@/core/hearing/notes';
import { Listener } from '@/core/hearing/signal';
import { centsBetween, midiToHertz, type Midi } from '@/core/tuning';

/** Instruments that Debian's small sound font has recordings of, with their General MIDI programs. */
export const PROGRAMS: readonly (readonly [string, number])[] = [
  ['flute', 73],
  ['piccolo', 72],
  ['oboe', 68],
  ['cor-anglais', 69],
  ['bassoon', 70],
  ['clarinet-bb', 71],
  ['recorder-alto', 74],
  ['sax-soprano', 64],
  ['sax-alto', 65],
  ['sax-tenor', 66],
  ['sax-baritone', 67],
];
const NOTE_SECONDS = 0.7;
const REST_SECONDS = 0.2;
const TICKS_A_SECOND = 960;
/** Seconds that a note is held, and the rest before it. */
interface Lengths {
  readonly held: number;
  readonly rest: number;
}
const SCALE: Lengths = { held: NOTE_SECONDS, rest: REST_SECONDS };
export const SOUND_FONT =
  (process.env['SOUND_FONT'] as string | undefined) ?? '/usr/share/sounds/sf2/TimGM6mb.sf2';

/** A standard MIDI file of a chromatic scale. */
function scaleFile(program: number, notes: readonly Midi[], { held, rest }: Lengths): Buffer {
  const track: number[] = [0, 0xff, 0x51, 3, 0x07, 0xa1, 0x20, 0, 0xc0, program];
  const delta = (ticks: number) => {
    if (ticks >= 128) track.push(0x80 | (ticks >> 7));
    track.push(ticks & 127);
  };
  for (const note of notes) {
    delta(Math.round(rest * TICKS_A_SECOND));
    track.push(0x90, note, 90);
    delta(Math.round(held * TICKS_A_SECOND));
    track.push(0x80, note, 0);
  }
  delta(480);
  track.push(0xff, 0x2f, 0);
  const head = Buffer.from([
    0x4d,
    0x54,
    0x68,
    0x64,
    0,
    0,
    0,
    6,
    0,
    0,
    0,
    1,
    480 >> 8,
    480 & 255,
    0x4d,
    0x54,
    0x72,
    0x6b,
  ]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(track.length);
  return Buffer.concat([head, length, Buffer.from(track)]);
}

export function render(program: number, notes: readonly Midi[], lengths: Lengths = SCALE) {
  const folder = mkdtempSync(join(tmpdir(), 'gold-reed-bench-'));
  try {
    const midi = join(folder, 'scale.mid');
    const wav = join(folder, 'scale.wav');
    writeFileSync(midi, scaleFile(program, notes, lengths));
    const options = ['-ni', '-R', '0', '-C', '0', '-r', '48000', '-g', '0.7', '-F', wav, SOUND_FONT, midi];
    execFileSync('fluidsynth', options, { stdio: 'ignore' });
    const bytes = new Uint8Array(readFileSync(wav));
    const layout = readWavLayout(bytes, bytes.length);
    if (!layout.ok) throw new Error(layout.problem);
    const { dataOffset, dataBytes, sampleRate } = layout.value;
    return {
      samples: Float32Array.from(
        decodeWavBlocks(bytes.subarray(dataOffset, dataOffset + dataBytes), layout.value),
      ),
      sampleRate,
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

export interface RecordedRow {
  readonly id: string;
  readonly notes: number;
  readonly found: number;
  readonly heard: number;
  readonly events: number;
  readonly frames: number;
  readonly gross: number;
}

function scaleOf(instrument: Instrument): Midi[] {
  const { low, high } = writtenRange(instrument);
  return Array.from({ length: high - low + 1 }, (_, i) => soundingOf(instrument, low + i));
}

/** A scale of those notes that the sound font has; outside its instruments' ranges it is silent. */
function renderScale(program: number, wanted: readonly Midi[]) {
  const whole = render(program, wanted);
  const sounds = wanted.filter((_, i) => {
    const start = Math.round((i * (NOTE_SECONDS + REST_SECONDS) + REST_SECONDS + 0.2) * whole.sampleRate);
    return whole.samples.subarray(start, start + 4800).some((x) => Math.abs(x) > 1e-3);
  });
  return { scale: sounds, ...(sounds.length < wanted.length ? render(program, sounds) : whole) };
}

/** Chromatic scales of recorded instruments through the whole analysis. */
export function recordedScales(room: RoomName | null = null, verbose = false): RecordedRow[] {
  return PROGRAMS.map(([id, program]) => {
    const instrument = findInstrument(id);
    if (!instrument) throw new Error(`no instrument ${id}`);
    const rendered = renderScale(program, scaleOf(instrument));
    const { scale, sampleRate } = rendered;
    const samples = room ? heardIn(rooms[room], rendered.samples, sampleRate, 1) : rendered.samples;
    const listener = new Listener(sampleRate, listeningRange(instrument));
    listener.push(samples);
    const frames = listener.finish();
    const heard = hearNotes(frames, instrument);
    let gross = 0;
    let count = 0;
    scale.forEach((midi, i) => {
      const start = i * (NOTE_SECONDS + REST_SECONDS) + REST_SECONDS;
      const from = Math.round((start + 0.12) / frames.hopSeconds);
      const to = Math.round((start + NOTE_SECONDS - 0.05) / frames.hopSeconds);
      for (let k = from; k < to && k < frames.count; k++) {
        count++;
        if (!(Math.abs(centsBetween(frames.f0[k]!, midiToHertz(midi))) < 60)) gross++;
      }
    });
    const found = scale.filter((midi, i) => {
      const start = i * (NOTE_SECONDS + REST_SECONDS) + REST_SECONDS;
      const there = heard.notes.filter(
        (note) => note.startSeconds > start - 0.15 && note.startSeconds < start + NOTE_SECONDS,
      );
      const right = there.length === 1 && there[0]?.soundingMidi === midi;
      if (verbose && !right)
        console.log(
          id,
          midi,
          there
            .map(
              (n) =>
                `${n.soundingMidi}@${(n.startSeconds - start).toFixed(2)}-${(n.endSeconds - start).toFixed(2)} ${n.centreCents?.toFixed(0)}`,
            )
            .join(' '),
        );
      return right;
    }).length;
    if (verbose)
      for (const event of heard.events)
        console.log(
          id,
          event.kind,
          event.startSeconds.toFixed(2),
          ((event.endSeconds - event.startSeconds) * 1000).toFixed(0),
          event.soundingMidi,
          'in',
          event.noteIndex === null ? '' : heard.notes[event.noteIndex]?.soundingMidi,
        );
    return {
      id,
      notes: scale.length,
      found,
      heard: heard.notes.length,
      events: heard.events.length,
      frames: count,
      gross,
    };
  });
}
