export { fromMidi } from './midiIn';
export { toMidi } from './midiOut';
export { fromMusicXml } from './musicXmlIn';
export { toMusicXml } from './musicXmlOut';
export {
  offsetsOfScale,
  readKeyboardMap,
  readScale,
  scaleHertz,
  type KeyboardMap,
  type ScaleFile,
} from './tuningFile';
