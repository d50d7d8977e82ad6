import { failure, type Outcome } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';
import { AnalysisClient } from '@/worker';

/** What is not read by then never will be. */
const LONGEST_MS = 15_000;

/** A file that is being read. */
export interface Reading {
  readonly fileName: string;
  readonly score: Promise<Outcome<Score>>;
  /** Gives it up; `score` then says so. */
  readonly cancel: () => void;
}

/** Reads a MusicXML or MIDI file for an instrument, in the worker: the page stays alive whatever is in it. */
export function readMusic(file: File, instrument: Instrument): Reading {
  const client = new AnalysisClient();
  const { name: fileName } = file;
  let giveUp: (problem: string) => void = () => undefined;
  const givenUp = new Promise<Outcome<Score>>((done) => (giveUp = (problem) => done(failure(problem))));
  const late = setTimeout(
    () => giveUp('it took too long to read, far longer than music does; export it again, one part only'),
    LONGEST_MS,
  );
  const read = file
    .arrayBuffer()
    .then((buffer) => client.readMusic({ fileName, bytes: new Uint8Array(buffer), instrument }))
    .catch((): Outcome<Score> => failure('it could not be read; it may be damaged'));
  const score = Promise.race([read, givenUp]).finally(() => {
    clearTimeout(late);
    client.close();
  });
  return { fileName, score, cancel: () => giveUp('was not brought in') };
}
