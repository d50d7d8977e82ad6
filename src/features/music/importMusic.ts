import { failure, type Outcome } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { MusicRead } from '@/core/music';
import { AnalysisClient } from '@/worker';

/** What is not read by then never will be. */
const LONGEST_MS = 15_000;

/** A file that is being read. */
export interface Reading {
  readonly file: File;
  readonly read: Promise<Outcome<MusicRead>>;
  /** Gives it up; `read` then says so. */
  readonly cancel: () => void;
}

/**
 * Reads a MusicXML or MIDI file for an instrument, in the worker: the page stays alive whatever is in it.
 * @param line which part and voice; else the one that fits best.
 */
export function readMusic(file: File, instrument: Instrument, line?: string): Reading {
  const client = new AnalysisClient();
  let giveUp: (problem: string) => void = () => undefined;
  const givenUp = new Promise<Outcome<MusicRead>>((done) => (giveUp = (problem) => done(failure(problem))));
  const late = setTimeout(
    () => giveUp('it took too long to read, far longer than music does; export it again, one part only'),
    LONGEST_MS,
  );
  const reading = file
    .arrayBuffer()
    .then((buffer) =>
      client.readMusic({
        fileName: file.name,
        bytes: new Uint8Array(buffer),
        instrument,
        ...(line !== undefined && { line }),
      }),
    )
    .catch((): Outcome<MusicRead> => failure('it could not be read; it may be damaged'));
  const read = Promise.race([reading, givenUp]).finally(() => {
    clearTimeout(late);
    client.close();
  });
  return { file, read, cancel: () => giveUp('was not brought in') };
}
