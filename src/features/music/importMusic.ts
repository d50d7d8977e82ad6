import type { Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { failure, type Outcome } from '@/core/base';
import { askForFile } from '@/ui';

const MOST_BYTES = 8_000_000;

/** Asks for a MusicXML or MIDI file and reads it for an instrument; null when the player changes their mind. */
export async function importMusic(
  instrument: Instrument,
): Promise<{ fileName: string; score: Outcome<Score> } | null> {
  const file = await askForFile('.musicxml,.mxl,.xml,.mid,.midi');
  if (!file) return null;
  const { name } = file;
  if (file.size > MOST_BYTES)
    return {
      fileName: name,
      score: failure(`${name} is larger than ${MOST_BYTES / 1e6} MB; export one part only`),
    };
  const { fromMidi, readMusicXml } = await import('@/core/music/files');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const score = /\.midi?$/i.test(name)
    ? fromMidi(bytes, instrument, name.replace(/\.[^.]+$/, ''))
    : readMusicXml(name, bytes, instrument);
  return { fileName: name, score };
}
