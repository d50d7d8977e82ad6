import { strFromU8, unzipSync } from 'fflate';
import { failure, success, type Outcome } from '@/core/base';
import type { Instrument } from '@/core/instruments';
import { boundsProblem, type MusicRead } from '@/core/music';
import { fromMidi } from './midiIn';
import { fromMusicXml } from './musicXmlIn';

/** No part for a wind instrument makes a larger file, packed or unpacked. */
const MOST = {
  titleLetters: 300,
  midiBytes: 600_000,
  xmlBytes: 24_000_000,
  containerBytes: 64_000,
  fileBytes: 8_000_000,
} as const;

function withinBounds(read: MusicRead): Outcome<MusicRead> {
  const { score } = read;
  const beyond = boundsProblem(score);
  return beyond === null
    ? success({ ...read, score: { ...score, title: score.title.slice(0, MOST.titleLetters) } })
    : failure(beyond);
}

/**
 * Reads a file of music by its name: .mid, .midi, .mxl; everything else as MusicXML. Never throws: whatever is wrong with the
 * file, the answer is one plain sentence. @param line which part and voice of it, as `lines` of an earlier reading calls them.
 */
export function readMusicFile(
  name: string,
  bytes: Uint8Array,
  instrument: Instrument,
  line?: string,
): Outcome<MusicRead> {
  try {
    const read = readByName(name, bytes, instrument, line);
    return read.ok ? withinBounds(read.value) : read;
  } catch {
    return failure('the file is damaged, or no music that can be read');
  }
}

function readByName(
  name: string,
  bytes: Uint8Array,
  instrument: Instrument,
  line: string | undefined,
): Outcome<MusicRead> {
  if (bytes.length > MOST.fileBytes)
    return failure(`it is larger than ${MOST.fileBytes / 1e6} MB; export one part only`);
  if (/\.midi?$/i.test(name)) {
    if (bytes.length > MOST.midiBytes)
      return failure(
        `it is larger than ${MOST.midiBytes / 1e3} kB, far more than a part has; export one part only`,
      );
    return fromMidi(bytes, instrument, name.replace(/\.[^.]+$/, ''), line);
  }
  if (!/\.mxl$/i.test(name)) return fromMusicXml(textOf(bytes), instrument, line);
  const packed = musicIn(bytes);
  return packed.ok ? fromMusicXml(textOf(packed.value), instrument, line) : packed;
}

/** Unpacks only what holds the music, and only as large as music is: a small file can unpack to gigabytes. */
function musicIn(bytes: Uint8Array): Outcome<Uint8Array> {
  const names: string[] = [];
  const only = (wanted: (path: string) => boolean, most: number) => {
    let tooLarge = false;
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!wanted(name)) return false;
        if (originalSize > most) tooLarge = true;
        return originalSize <= most;
      },
    });
    return { files: Object.values(files), tooLarge };
  };
  try {
    const container = only((path) => {
      names.push(path);
      return path === 'META-INF/container.xml';
    }, MOST.containerBytes).files[0];
    const named = container && /full-path="([^"]+)"/.exec(strFromU8(container))?.[1];
    const inside =
      named ?? names.find((path) => /\.(musicxml|xml)$/i.test(path) && !path.startsWith('META-INF'));
    const { files, tooLarge } = only((path) => path === inside, MOST.xmlBytes);
    if (tooLarge) return failure(`the music in it unpacks to more than ${MOST.xmlBytes / 1e6} MB`);
    return files[0] ? success(files[0]) : failure('it holds no music');
  } catch {
    return failure('it is no .mxl file: it cannot be unpacked');
  }
}

/** Text in UTF-8 or UTF-16, as the mark at its beginning says. */
function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const wide = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : null;
  return new TextDecoder(wide ?? 'utf-8').decode(bytes);
}
