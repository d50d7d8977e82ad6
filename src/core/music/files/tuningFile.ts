import { type Cents, failure, type Hertz, type Midi, type Outcome, success } from '@/core/base';
import { centsBetween, midiToHertz, type Offsets } from '@/core/tuning';

/** A scale from a tuning file: cents of its degrees over the first; the last one is the period (mostly the octave). */
export interface ScaleFile {
  readonly name: string;
  readonly cents: readonly Cents[];
}

/** How a scale is laid over notes. */
export interface KeyboardMap {
  /** Note that degree 0 lies on. */
  readonly middle: Midi;
  readonly referenceNote: Midi;
  readonly referenceHz: Hertz;
  /** Degree of each note from `middle` upward within a period; null is unmapped. Empty: one note a degree. */
  readonly degrees: readonly (number | null)[];
  readonly periodDegree: number;
}

const linesOf = (text: string) => text.split(/\r?\n/).filter((line) => !line.startsWith('!'));

/** Reads a scale (.scl): a description, a count, then one degree a line, in cents (with a point) or as a ratio. */
export function readScale(text: string): Outcome<ScaleFile> {
  const lines = linesOf(text);
  const name = (lines[0] ?? '').trim();
  const count = Number((lines[1] ?? '').trim().split(/\s/)[0]);
  if (!Number.isInteger(count) || count < 1)
    return failure('the second line of a scale has to be its number of degrees');
  const rows = lines
    .slice(2)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  if (rows.length < count) return failure(`the scale promises ${count} degrees and has ${rows.length}`);
  const cents: Cents[] = [];
  for (const [i, row] of rows.slice(0, count).entries()) {
    const value = row.split(/\s/)[0] ?? '';
    const ratio = /^(\d+)(?:\/(\d+))?$/.exec(value);
    const here = value.includes('.')
      ? Number(value)
      : ratio
        ? 1200 * Math.log2(Number(ratio[1]) / Number(ratio[2] ?? 1))
        : NaN;
    if (!Number.isFinite(here)) return failure(`degree ${i + 1}, "${value}", is neither cents nor a ratio`);
    cents.push(here);
  }
  return success({ name, cents });
}

/** Reads a keyboard mapping (.kbm). */
export function readKeyboardMap(text: string): Outcome<KeyboardMap> {
  const rows = linesOf(text)
    .map((line) => line.trim().split(/\s/)[0] ?? '')
    .filter((line) => line !== '');
  const [size, , , middle, referenceNote, referenceHz, periodDegree] = rows.map(Number);
  const whole = [size, middle, referenceNote, periodDegree];
  if (whole.some((value) => value === undefined || !Number.isInteger(value)) || !(referenceHz! > 0))
    return failure(
      'a keyboard mapping begins with size, first and last note, middle note, reference note, its Hz, and the degree of the period',
    );
  const degrees = rows.slice(7, 7 + size!).map((row) => (row.toLowerCase() === 'x' ? null : Number(row)));
  if (degrees.some((degree) => degree !== null && !Number.isInteger(degree)))
    return failure('every mapped note has to be a degree or x');
  return success({
    middle: middle!,
    referenceNote: referenceNote!,
    referenceHz: referenceHz!,
    degrees,
    periodDegree: periodDegree!,
  });
}

/** Cents of a note over degree 0; null when the mapping leaves it out. */
function centsOfNote(note: Midi, { cents }: ScaleFile, map: KeyboardMap): Cents | null {
  const size = map.degrees.length || cents.length;
  const steps = note - map.middle;
  const period = Math.floor(steps / size);
  const place = steps - period * size;
  const degree = map.degrees.length ? map.degrees[place] : place;
  if (degree === null || degree === undefined) return null;
  const periodCents = cents[(map.periodDegree || cents.length) - 1] ?? 1200;
  const octaves = Math.floor(degree / cents.length);
  const within = degree - octaves * cents.length;
  return period * periodCents + octaves * cents[cents.length - 1]! + (within === 0 ? 0 : cents[within - 1]!);
}

/**
 * Frequency of a note in an imported scale. Without a mapping the scale begins on middle C and A4 has the pitch standard.
 * @returns null for a note that the mapping leaves out.
 */
export function scaleHertz(note: Midi, scale: ScaleFile, a4: Hertz, mapping?: KeyboardMap): Hertz | null {
  const map = mapping ?? {
    middle: 60,
    referenceNote: 69,
    referenceHz: a4,
    degrees: [],
    periodDegree: scale.cents.length,
  };
  const here = centsOfNote(note, scale, map);
  const reference = centsOfNote(map.referenceNote, scale, map);
  if (here === null || reference === null) return null;
  return map.referenceHz * 2 ** ((here - reference) / 1200);
}

/** Cents of every note against equal temperament. Its A4 is put on the pitch standard, whatever that is. */
export function offsetsOfScale(scale: ScaleFile, mapping?: KeyboardMap): Offsets {
  const hertz = (midi: Midi) => scaleHertz(midi, scale, 440, mapping);
  const a4 = hertz(69);
  const base = a4 === null ? 0 : centsBetween(a4, 440);
  return Array.from({ length: 128 }, (_, midi) => {
    const here = hertz(midi);
    return here === null ? null : centsBetween(here, midiToHertz(midi)) - base;
  });
}
