import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Midi } from '@/core/base';
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
import { centsBetween, midiToHertz } from '@/core/tuning';
import { flag } from './flags';

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
  readonly 'once %': number;
  /** Some recordings begin with a wrong mode: blips are told apart from the rest. */
  readonly 'blips a minute': number;
  readonly 'other events a minute': number;
  readonly 'gross %': number;
}

/** A note is heard once when one begins near its start and none until near the next; its pitch is looked at in its body. */
const SLACK_SECONDS = 0.08;
const BODY = { from: 0.2, to: 0.06 } as const;
const GROSS_CENTS = 60;

/** A scale of detached notes, leaps up and down with hardly a stop between, and long notes over the range. */
function linesOf(scale: readonly Midi[]): readonly { notes: readonly Midi[]; lengths: Lengths }[] {
  const every = scale.filter((_, i) => i % 2 === 0);
  return [
    { notes: scale, lengths: SCALE },
    {
      notes: every.flatMap((note, i) => [note, every[(i + 3) % every.length]!]),
      lengths: { held: 0.4, rest: 0.02 },
    },
    { notes: scale.filter((_, i) => i % 3 === 1), lengths: { held: 2, rest: 0.4 } },
  ];
}

/** Lines of recorded instruments, all or those of `--only`, through the whole analysis, dry or at several places of a room. */
export function recordedLines(room: RoomName | null, places: number): RecordedRow[] {
  const only = flag('only')?.split(',');
  return PROGRAMS.filter(([id]) => only?.includes(id) ?? true).map(([id, program]) => {
    const instrument = findInstrument(id);
    if (!instrument) throw new Error(`no instrument ${id}`);
    const sum = { notes: 0, once: 0, blips: 0, others: 0, minutes: 0, frames: 0, gross: 0 };
    for (const { notes, lengths } of linesOf(scaleOf(instrument))) {
      const { samples, sampleRate } = render(program, notes, lengths);
      const starts = notes.map((_, i) => i * (lengths.held + lengths.rest) + lengths.rest);
      for (let place = 1; place <= places; place++) {
        const audio = room ? heardIn(rooms[room], samples, sampleRate, place) : samples;
        const listener = new Listener(sampleRate, listeningRange(instrument));
        listener.push(audio);
        const heard = hearNotes(listener.finish(), instrument);
        const { frames } = heard;
        const blips = heard.events.filter(({ kind }) => kind === 'blip').length;
        sum.minutes += samples.length / sampleRate / 60;
        sum.blips += blips;
        sum.others += heard.events.length - blips;
        notes.forEach((midi, i) => {
          const start = starts[i]!;
          // Outside its instruments' ranges the sound font is silent.
          const middle = Math.round((start + lengths.held / 2) * sampleRate);
          if (!samples.subarray(middle, middle + 2400).some((x) => Math.abs(x) > 1e-3)) return;
          const until = start + lengths.held + lengths.rest - SLACK_SECONDS;
          const begun = heard.notes.filter(
            ({ startSeconds }) => startSeconds >= start - SLACK_SECONDS && startSeconds < until,
          );
          sum.notes++;
          if (begun.length === 1 && begun[0]?.soundingMidi === midi) sum.once++;
          const from = Math.round((start + BODY.from) / frames.hopSeconds);
          const to = Math.round((start + lengths.held - BODY.to) / frames.hopSeconds);
          for (let k = from; k < to && k < frames.count; k++) {
            sum.frames++;
            if (!(Math.abs(centsBetween(frames.f0[k]!, midiToHertz(midi))) < GROSS_CENTS)) sum.gross++;
          }
        });
      }
    }
    const rounded = (value: number) => Number(value.toFixed(2));
    return {
      id,
      notes: sum.notes,
      'once %': rounded((100 * sum.once) / sum.notes),
      'blips a minute': rounded(sum.blips / sum.minutes),
      'other events a minute': rounded(sum.others / sum.minutes),
      'gross %': rounded((100 * sum.gross) / sum.frames),
    };
  });
}

function scaleOf(instrument: Instrument): Midi[] {
  const { low, high } = writtenRange(instrument);
  return Array.from({ length: high - low + 1 }, (_, i) => soundingOf(instrument, low + i));
}
