import { failure, success, type Outcome } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { boundsProblem, type MusicRead } from '@/core/music';
import { fromMidi } from '../midiIn';
import { fromMusicXml } from '../musicXmlIn';
import { musicIn } from './mxl';

/** No part for a wind instrument makes a larger file. */
const MOST = {
  titleLetters: 300,
  midiBytes: 600_000,
  fileBytes: 8_000_000,
  /** Of all parts and voices together: reading more takes longer than anyone waits. */
  xmlNotes: 40_000,
} as const;

function withinBounds(read: MusicRead): Outcome<MusicRead> {
  const { score } = read;
  const beyond = boundsProblem(score);
  return beyond === null
    ? success({ ...read, score: { ...score, title: score.title.slice(0, MOST.titleLetters) } })
    : failure(beyond);
}

/**
 * Reads a file of music by its name: .mid, .midi, .mxl; everything else as MusicXML. Never rejects: whatever is wrong with the
 * file, the answer is one plain sentence. @param line which part and voice of it, as `lines` of an earlier reading calls them.
 */
export async function readMusicFile(
  name: string,
  bytes: Uint8Array,
  instrument: Instrument,
  line?: string,
): Promise<Outcome<MusicRead>> {
  try {
    const read = await readByName(name, bytes, instrument, line);
    return read.ok ? withinBounds(read.value) : read;
  } catch {
    return failure('the file is damaged, or no music that can be read');
  }
}

async function readByName(
  name: string,
  bytes: Uint8Array,
  instrument: Instrument,
  line: string | undefined,
): Promise<Outcome<MusicRead>> {
  if (bytes.length > MOST.fileBytes)
    return failure(`it is larger than ${MOST.fileBytes / 1e6} MB; export one part only`);
  if (/\.midi?$/i.test(name)) {
    if (bytes.length > MOST.midiBytes)
      return failure(
        `it is larger than ${MOST.midiBytes / 1e3} kB, far more than a part has; export one part only`,
      );
    return fromMidi(bytes, instrument, name.replace(/\.[^.]+$/, ''), line);
  }
  if (!/\.mxl$/i.test(name)) return fromXml(textOf(bytes), instrument, line);
  const packed = await musicIn(bytes).catch(() => failure('it is no .mxl file: it cannot be unpacked'));
  return packed.ok ? fromXml(textOf(packed.value), instrument, line) : packed;
}

function fromXml(text: string, instrument: Instrument, line: string | undefined): Outcome<MusicRead> {
  const notes = text.match(/<note[\s>/]/g)?.length ?? 0;
  return notes > MOST.xmlNotes
    ? failure(
        `it holds ${notes} notes; ${MOST.xmlNotes} is the most. Export the part you play, or a movement of it`,
      )
    : fromMusicXml(text, instrument, line);
}

/** Text in UTF-8 or UTF-16, as the mark at its beginning says. */
function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const wide = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : null;
  return new TextDecoder(wide ?? 'utf-8').decode(bytes);
}
