export { fromMidi, toMidi } from './midi';
export { fromMusicXml } from './musicXmlIn';
export { readMusicFile } from './reading';
export { toMusicXml } from './musicXmlOut';
export {
  offsetsOfScale,
  readKeyboardMap,
  readScale,
  scaleHertz,
  type KeyboardMap,
  type ScaleFile,
} from './tuningFile';
