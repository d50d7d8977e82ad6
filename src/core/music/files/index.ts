export { fromMidi, toMidi } from './midi';
export { fromMusicXml, readMusicXml } from './musicXmlIn';
export { toMusicXml } from './musicXmlOut';
export {
  offsetsOfScale,
  readKeyboardMap,
  readScale,
  scaleHertz,
  type KeyboardMap,
  type ScaleFile,
} from './tuningFile';
