import type { KeyboardMap } from '@/core/music/files';
import { failure, success, type Outcome } from '@/core/base';
import type { Offsets } from '@/core/tuning';
import { askForFiles } from '@/ui';

/** Asks for a scale (.scl) and, with it if wanted, a keyboard mapping (.kbm); null when the player changes their mind. */
export async function readTuningFiles(): Promise<Outcome<{ name: string; offsets: Offsets }> | null> {
  const files = await askForFiles('.scl,.kbm');
  if (files.length === 0) return null;
  const { offsetsOfScale, readKeyboardMap, readScale } = await import('@/core/music/files');
  const ending = (kind: string) => files.find((file) => file.name.toLowerCase().endsWith(kind));
  const scaleFile = ending('.scl');
  if (!scaleFile) return failure('choose a scale (.scl); a mapping (.kbm) alone has no notes');
  const scale = readScale(await scaleFile.text());
  if (!scale.ok) return failure(`${scaleFile.name}: ${scale.problem}`);
  const mapFile = ending('.kbm');
  let map: KeyboardMap | undefined;
  if (mapFile) {
    const read = readKeyboardMap(await mapFile.text());
    if (!read.ok) return failure(`${mapFile.name}: ${read.problem}`);
    map = read.value;
  }
  const name = scale.value.name === '' ? scaleFile.name : scale.value.name;
  return success({ name, offsets: offsetsOfScale(scale.value, map) });
}
