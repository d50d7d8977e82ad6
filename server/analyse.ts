import { open } from 'node:fs/promises';
import { analysisOf, decodeWavBlocks, readWavLayout, type Analysis } from '@/core/formats';
import { findInstrument, listeningRange } from '@/core/instruments';
import { hearNotes } from '@/core/hearing/notes';
import { failure, success, type Outcome } from '@/core/base';
import { droneFrequencies, Listener } from '@/core/hearing/signal';

export interface AnalysisJob {
  /** The recording, on disk so that no copy of it is held in memory. */
  readonly path: string;
  readonly instrumentId: string;
  readonly a4: number;
  /** Pitches of a drone that sounds in the recording, Hz. */
  readonly drone: readonly number[];
  /** Someone else plays or hums along. */
  readonly company: boolean;
  readonly withFrames: boolean;
}

export const LONGEST_MINUTES = 30;
const HEAD_BYTES = 1 << 20;
const BLOCKS_AT_ONCE = 1 << 16;

/** Reads a WAV file block by block through the core. Runs in a thread of its own. */
export async function analyse(job: AnalysisJob): Promise<Outcome<Analysis>> {
  const instrument = findInstrument(job.instrumentId);
  if (!instrument) return failure(`instrument: there is no "${job.instrumentId}"`);
  const file = await open(job.path);
  try {
    const { size } = await file.stat();
    const head = new Uint8Array(Math.min(size, HEAD_BYTES));
    await file.read(head, 0, head.length, 0);
    const read = readWavLayout(head, size);
    if (!read.ok) return read;
    const layout = read.value;
    const durationSeconds = layout.dataBytes / layout.blockBytes / layout.sampleRate;
    if (durationSeconds > LONGEST_MINUTES * 60) {
      return failure(
        `the recording is ${(durationSeconds / 60).toFixed(1)} minutes long; ${LONGEST_MINUTES} is the most`,
      );
    }
    const listener = new Listener(layout.sampleRate, listeningRange(instrument, job.a4), {
      removed: droneFrequencies(job.drone, layout.sampleRate),
    });
    const buffer = new Uint8Array(BLOCKS_AT_ONCE * layout.blockBytes);
    for (let at = 0; at < layout.dataBytes;) {
      const wanted = Math.min(buffer.length, layout.dataBytes - at);
      const { bytesRead } = await file.read(buffer, 0, wanted, layout.dataOffset + at);
      if (bytesRead < wanted) return failure('the WAV file ended while it was being read');
      listener.push(decodeWavBlocks(buffer.subarray(0, bytesRead), layout));
      at += bytesRead;
    }
    const heard = hearNotes(listener.finish(), instrument, { a4: job.a4, company: job.company });
    return success(
      analysisOf({
        instrumentId: instrument.id,
        a4: job.a4,
        durationSeconds,
        heard,
        withFrames: job.withFrames,
      }),
    );
  } finally {
    await file.close();
  }
}
