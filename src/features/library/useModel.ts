import { LEAST_MODEL_SECONDS, modelFrom, modelNotes, nearestNote } from '@/core/hearing/notes';
import { useCallback, useEffect, useRef, useState } from 'react';
import { decodeRecording, SourceProblem } from '@/audio';
import { type Model, type Score } from '@/core/music';
import { nameWithin, soundingOf, type Instrument } from '@/core/instruments';
import type { Note } from '@/core/hearing/notes';
import { AnalysisClient } from '@/worker';
import { askForRecording } from '@/features/sound';
import { usePlayback } from '@/features/sound';

interface Heard {
  readonly name: string;
  readonly notes: readonly Note[];
  readonly samples: Int16Array<ArrayBuffer>;
  readonly sampleRate: number;
}

export interface ModelChooser {
  readonly state: 'none' | 'listening' | 'heard';
  readonly problem: string | null;
  /** Notes of the recording that can be a model, in its order. */
  readonly notes: readonly Note[];
  readonly playing: boolean;
  readonly choose: () => Promise<void>;
  readonly pick: (note: Note) => void;
  /** The model's note over and over, or silence again. */
  readonly toggleHearing: (model: Model) => void;
  readonly cancel: () => void;
}

/** Choosing a recording as the model of a sound, and the note in it. */
export function useModel(
  score: Score | null,
  instrument: Instrument,
  written: number,
  a4: number,
  onPick: (model: Model) => void,
): ModelChooser {
  const [heard, setHeard] = useState<Heard | null>(null);
  const [listening, setListening] = useState(false);
  const { playing, play, stop } = usePlayback();
  const [problem, setProblem] = useState<string | null>(null);
  const client = useRef<AnalysisClient | null>(null);

  const cancel = useCallback(() => {
    client.current?.close();
    client.current = null;
    setListening(false);
  }, []);
  useEffect(() => () => client.current?.close(), []);

  const pick = (note: Note, recording: string) => onPick(modelFrom(note, recording));

  const choose = async () => {
    const file = score && (await askForRecording());
    if (!file) return;
    setProblem(null);
    setListening(true);
    const mine = new AnalysisClient();
    client.current = mine;
    try {
      const { samples, sampleRate } = await decodeRecording(file);
      const request = {
        score,
        instrument,
        sampleRate,
        a4,
        gainControlled: false,
        longestSeconds: 3600,
        firstBeat: null,
      };
      const { notes } = await mine.measure(
        { ...request, roundTrip: { seconds: 0, how: 'exact' } },
        { origin: 0, clicks: [], audio: samples },
      );
      if (client.current !== mine) return;
      const found = modelNotes(notes);
      const best = nearestNote(found, soundingOf(instrument, written));
      if (best) {
        setHeard({ name: file.name, notes: found, samples, sampleRate });
        pick(best, file.name);
      } else
        setProblem(
          `In “${file.name}” no note of the ${nameWithin(instrument)}’s range was held for ${LEAST_MODEL_SECONDS} s. Choose one with a long note of a single instrument.`,
        );
    } catch (error) {
      setProblem(error instanceof SourceProblem ? error.message : `It could not be heard: ${String(error)}`);
    } finally {
      if (client.current === mine) cancel();
    }
  };

  const toggleHearing = ({ startSeconds, endSeconds }: Model) => {
    if (playing || !heard) {
      stop();
      return;
    }
    const { samples, sampleRate } = heard;
    const part = samples.slice(Math.floor(startSeconds * sampleRate), Math.ceil(endSeconds * sampleRate));
    void play(() => Promise.resolve({ samples: part, sampleRate }), true);
  };

  return {
    state: listening ? 'listening' : heard ? 'heard' : 'none',
    problem,
    notes: heard?.notes ?? [],
    playing,
    choose,
    pick: (note) => heard && pick(note, heard.name),
    toggleHearing,
    cancel,
  };
}
